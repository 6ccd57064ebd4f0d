import type { Judged, WindItem } from '@geolabe/core'
import { t } from '../language/t'
import { useSay } from '../units/units'
import { Outcome } from './outcome'
import { opinionWords } from './words'

/** What is to be lifted in what wind, and what somebody has reckoned of it. */
export function WindClaim({ item }: { item: WindItem }) {
  const say = useSay()
  const { load, chart, said } = item
  return (
    <div>
      <ul className="leading-snug">
        <li>
          {t`Load ${say('mass', load.mass_kg)}, a sheet ${say('length', load.width_m)} by ${say('length', load.height_m)} across the wind, shape factor ${load.dragCoefficient}.`}
        </li>
        <li>{t`Forecast: mean ${say('speed', item.mean_mps)} at 10 m. The tip is ${say('length', item.height_m)} up.`}</li>
        <li>
          {t`Its table allows ${say('speed', chart.limit_mps)}, for ${say('area', chart.referenceArea_m2_per_t)} of sail a tonne.`}
        </li>
      </ul>
      <p className="mt-2">{t`Somebody has reckoned and says: it may be lifted, for gusts at the tip come to`}</p>
      <p className="text-[1.6rem] leading-tight font-bold tabular-nums">
        {say('speed', said.gust_mps)} <span className="text-base font-normal text-quiet">{t`of at most`}</span>{' '}
        {say('speed', said.limit_mps)}
      </p>
    </div>
  )
}

/** Tip, load and somebody beside it, true to scale, with the wind as it is said to be at ten metres. */
export function WindPicture({ item }: { item: WindItem }) {
  const { load, height_m } = item
  const top = Math.max(height_m, 11)
  const width = Math.max(1.1 * top, 3 * load.width_m + 4)
  const thin = Math.max(width, top) / 400
  const hung = Math.min(0.45 * height_m, height_m - load.height_m - 1)
  const x = width * 0.58
  const arrow = (y: number, long: number) =>
    `M${width * 0.06} ${y}h${long}m${-0.03 * width} ${-0.02 * width}l${0.03 * width} ${0.02 * width}l${-0.03 * width} ${0.02 * width}`
  return (
    <svg
      viewBox={`0 ${-1.06 * top} ${width} ${1.12 * top}`}
      className="block h-full max-h-[44dvh] w-full rounded-xl border border-line bg-paper max-sm:max-h-[26dvh] roomy:max-h-none"
      role="img"
      aria-label={t`Load under its tip in the wind, beside somebody, true to scale`}
    >
      <rect x={-width} y={0} width={3 * width} height={top} fill="var(--sunk)" />
      <g stroke="var(--ink)" strokeWidth={thin * 2} fill="none">
        <path d={`M${-width} 0H${2 * width}`} strokeWidth={thin * 3} />
        <path d={`M${width * 0.92} 0L${x} ${-height_m}`} strokeWidth={thin * 6} strokeLinecap="round" />
        <path d={`M${x} ${-height_m}V${-hung - load.height_m}`} />
        <path d={`M0 -10H${width}`} stroke="var(--edge)" strokeDasharray={`${thin * 6} ${thin * 5}`} />
        <path d={arrow(-10, 0.22 * width)} strokeWidth={thin * 5} />
        <rect
          x={x - load.width_m / 2}
          y={-hung - load.height_m}
          width={load.width_m}
          height={load.height_m}
          fill="var(--accent)"
        />
        <g fill="var(--ink)" stroke="none">
          <circle cx={width * 0.4} cy={-1.62} r={0.14} />
          <rect x={width * 0.4 - 0.2} y={-1.45} width={0.4} height={1.45} rx={0.15} />
        </g>
      </g>
    </svg>
  )
}

/** Whether an answer was right, and what it comes to. */
export function WindTold({ item, answer }: { item: WindItem; answer: Judged }) {
  const say = useSay()
  const { said, right, wrong } = item
  return (
    <Outcome item={item} answer={answer}>
      {wrong !== 'nothing' && (
        <p>
          <strong>{t`${opinionWords[wrong]}.`}</strong>
        </p>
      )}
      <p>
        {right.gust_mps > right.limit_mps
          ? t`Gusts come to ${say('speed', right.gust_mps)}, and it may be lifted in ${say('speed', right.limit_mps)} at most: it stays down.`
          : t`Gusts come to ${say('speed', right.gust_mps)}, and it may be lifted in up to ${say('speed', right.limit_mps)}.`}
      </p>
      {wrong === 'sail-left-out' && (
        <p>{t`More sail than the table counts with takes its wind down, by the root of one over the other.`}</p>
      )}
      {said.gust_mps !== right.gust_mps && (
        <p>{t`A mean of ten minutes has gusts 1.4 times as strong at ten metres, and stronger further up.`}</p>
      )}
    </Outcome>
  )
}
