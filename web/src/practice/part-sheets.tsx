import {
  gradeWords,
  type Judged,
  judge,
  limitsOf,
  measureLabel,
  measureUnit,
  type PartItem,
  type PartPlace,
  watchFrom_share,
  wearRules,
} from '@geolabe/core'
import { t } from '../language/t'
import { asButton } from '../look/as-button'
import { judgedWords } from '../walkround/reading'
import { Outcome } from './outcome'
import { PartDrawing, zones } from './part-plates'
import { opinionWords } from './words'

export const placeWords: Record<PartPlace, string> = {
  heel: t`heel`,
  blade: t`blade`,
  tip: t`tip`,
  lock: t`lock`,
  'left-chain': t`left chain`,
  'right-chain': t`right chain`,
  'left-anchor': t`left anchor`,
  'right-anchor': t`right anchor`,
  tread: t`tread`,
  sidewall: t`sidewall`,
  nuts: t`nuts`,
  valve: t`pressure`,
  throat: t`throat`,
  seat: t`seat`,
  latch: t`latch`,
  swivel: t`swivel`,
  sheave: t`at the sheave`,
  middle: t`in the middle`,
  end: t`its end`,
  beam: t`beam`,
  pin: t`pin`,
  jack: t`jack`,
  keeper: t`keeper plate`,
  lug: t`lug`,
  'hoist-end': t`at the hoist`,
}

/** What was measured, when it was new, and by which rule it is judged. */
function Measured({ read: { measure: m, reading, at }, several }: { read: NonNullable<PartItem['read']>; several: boolean }) {
  const unit = measureUnit(m)
  const { least, most } = limitsOf(m)
  const watched = Math.round(100 * watchFrom_share)
  return (
    <>
      <p className="mt-1">
        {several ? t`${measureLabel(m)}, ${placeWords[at]}` : measureLabel(m)}
        <strong className="block text-[1.8rem] leading-tight tabular-nums">
          {reading} {unit}
        </strong>
      </p>
      <p>
        {m.nominal !== undefined &&
          (wearRules[m.wear].by === 'share' ? t`Blade ${m.nominal} ${unit} long. ` : t`When new ${m.nominal} ${unit}. `)}
        {m.nominal === undefined && t`Limit ${least ?? most ?? ''} ${unit}. `}
        {t`${judge(m, reading).source}; watched from ${watched} % of that.`}
      </p>
    </>
  )
}

/** Which part it is and what was measured of it: somebody says that it is in order. */
export function PartClaim({ item }: { item: PartItem }) {
  return (
    <div>
      <p>{t`Somebody walked round, looked at this and says: in order.`}</p>
      <p className="text-[1.3rem] leading-tight font-bold">{item.label}</p>
      {item.read && <Measured read={item.read} several={(item.plate.measured[item.read.measure.wear]?.length ?? 0) > 1} />}
    </div>
  )
}

/** The part as it is seen; a place that is touched is where something is wrong. */
export function PartPicture({ item, at, onTouch }: { item: PartItem; at: string | null; onTouch?: (place: string) => void }) {
  const places = zones[item.plate.drawn]
  const touch = (place: PartPlace) =>
    onTouch && {
      ...asButton(t`${placeWords[place]}, on the picture`, () => onTouch(place)),
      className: 'cursor-pointer outline-none hover:stroke-edge focus-visible:stroke-ink',
    }
  return (
    <svg
      viewBox="0 0 400 240"
      className="block h-full max-h-[44dvh] w-full rounded-xl border border-line bg-paper max-sm:max-h-[28dvh] roomy:max-h-none"
      role={onTouch ? 'group' : 'img'}
      aria-label={t`${item.label}, as it is seen`}
    >
      <PartDrawing item={item} />
      {item.mud && (
        <path
          d="M-16 2q2 -13 13 -9q9 -9 15 3q9 5 1 11q-9 9 -18 3q-11 2 -11 -8zm34 12a4 4 0 1 0 1 0zm-44 -20a3 3 0 1 0 1 0z"
          transform={`translate(${40 + 320 * item.mud[0]} ${30 + 180 * item.mud[1]})`}
          fill="var(--quiet)"
          opacity={0.75}
        />
      )}
      {item.plate.places.map((place) => (
        <path
          key={place}
          d={places[place]}
          fillRule="evenodd"
          fill="transparent"
          strokeWidth={4}
          strokeDasharray="9 6"
          stroke={place === at ? 'var(--ink)' : 'transparent'}
          {...touch(place)}
        />
      ))}
    </svg>
  )
}

/** Whether an answer was right: what, where, and what it comes to. */
export function PartTold({ item, answer }: { item: PartItem; answer: Judged }) {
  const { wrong, where, read } = item
  return (
    <Outcome item={item} answer={answer}>
      {wrong !== 'nothing' && (
        <p>
          <strong>{t`${opinionWords[wrong]}.`}</strong>{' '}
          <span className="inline-block first-letter:uppercase">{t`${where.map((x) => placeWords[x]).join(', ')}.`}</span>
        </p>
      )}
      {read && !item.seen && <p>{judgedWords(read.measure, judge(read.measure, read.reading))}</p>}
      {read && item.seen && <p>{t`Its reading is in order, and that changes nothing.`}</p>}
      {wrong === 'nothing' && !read && <p>{t`Whole, nothing loose, nothing missing.`}</p>}
      {wrong === 'part-near' && (
        <p>{t`Grade: ${gradeWords.watch.label.toLowerCase()}. It stays visible to everyone who follows.`}</p>
      )}
      {wrong !== 'nothing' && wrong !== 'part-near' && (
        <p>{t`Grade: ${gradeWords.hazard.label.toLowerCase()}. It stops the machine.`}</p>
      )}
    </Outcome>
  )
}
