import {
  distanceToFeature,
  type Finding,
  feetOf,
  type Judged,
  type OutriggerCrane,
  outriggersIn,
  type Place,
  type StandItem,
} from '@geolabe/core'
import { Bubble } from '../instruments/bubble'
import { Dial } from '../instruments/dial'
import { findingWords } from '../language/finding-words'
import { t } from '../language/t'
import { dialFeet } from '../setup/dial-feet'
import { useSay } from '../units/units'
import { Outcome } from './outcome'
import { opinionWords } from './words'

const edgeOf = (place: Place) => place.features.find((f) => f.kind === 'edge')
const kPaOf = (place: Place, id: string) => place.ground.find((g) => g.id === id)?.allowable_kPa ?? 0
const labelOf = (machine: OutriggerCrane, id: string) => machine.outriggers.find((o) => o.id === id)?.label ?? id

/** How the machine was set up, and for which sheet of its table. */
export function StandClaim({ item, machine, sheet }: { item: StandItem; machine: OutriggerCrane; sheet: string }) {
  const say = useSay()
  const edge = edgeOf(item.place)
  const [mat] = item.place.mats
  const { pitch_deg, roll_deg } = item.setup.level
  const [deep, level] = [say('length', edge?.drop_m ?? 0), say('angle', item.level_deg)]
  return (
    <div>
      <div className="float-right ml-2 [&>svg]:max-sm:size-20">
        <Bubble
          pitch_deg={Number(pitch_deg)}
          roll_deg={Number(roll_deg)}
          limit_deg={item.level_deg}
          label={t`Bubble, read along and across: ${say('angle', Number(pitch_deg))}, ${say('angle', Number(roll_deg))}`}
          judged={false}
        />
      </div>
      <p>{t`Somebody set it up and says: it stands well for`}</p>
      <p className="text-[1.3rem] leading-tight font-bold max-sm:text-[1.15rem]">{sheet}</p>
      <ul className="mt-1.5 leading-snug">
        <li>{t`Mats ${say('length', mat?.length_m ?? 0)} square; the tail swings ${say('length', machine.upper.tailSwingRadius_m)}.`}</li>
        <li>
          {t`Ground takes ${say('pressure', kPaOf(item.place, 'hard'))}; backfill, dotted, ${say('pressure', kPaOf(item.place, 'soft'))}.`}
        </li>
        <li>{edge?.soil === 'firm' ? t`Trench ${deep} deep in firm ground.` : t`Trench ${deep} deep in loose ground.`}</li>
        <li>{t`Level within ${level}: the dot in the ring.`}</li>
      </ul>
    </div>
  )
}

/** The place as it is drawn: what lies about by its name, weaker ground dotted. */
function drawnPlace(place: Place): Place {
  const names: Record<string, string> = { trench: t`trench`, cover: t`cover`, stack: t`stack`, soft: '' }
  return {
    ...place,
    ground: place.ground.map(({ allowable_kPa, ...g }) =>
      g.id === 'soft' ? { ...g, soil: 'made-ground' } : { ...g, allowable_kPa },
    ),
    features: place.features.map((f) => ({ ...f, label: names[f.id] ?? f.label })),
  }
}

/** From above, true to scale: what each foot may press with stands beside it. An outrigger that is touched is where something is wrong. */
export function StandPicture({
  item,
  machine,
  at,
  onTouch,
}: {
  item: StandItem
  machine: OutriggerCrane
  /** The outrigger that is spoken of. */
  at: string | null
  onTouch: ((outrigger: string) => void) | undefined
}) {
  const say = useSay()
  const feet = feetOf(machine.outriggers, outriggersIn(item.setup.standing))
  const edge = edgeOf(item.place)
  const out_m = Math.max(...feet.map((f) => Math.max(Math.abs(f.x_m), Math.abs(f.y_m)))) + (item.place.mats[0]?.length_m ?? 0)
  const lying_m = item.place.features
    .filter((f) => f !== edge)
    .flatMap((f) => f.geometry.points.flatMap(([x, y]) => [Math.abs(x), Math.abs(y)]))
  const extent_m = Math.max(
    1.25 * out_m,
    ...lying_m.map((m) => m + 0.2),
    edge ? distanceToFeature(edge, item.setup.position) + 0.4 : 0,
  )
  return (
    <Dial
      machine={machine}
      label={t`How ${machine.name} stands, from above`}
      outriggers={dialFeet(machine, item.setup).map((f) => ({
        ...f,
        verdict: null,
        note: say('force', item.feet_N[f.id] ?? 0),
      }))}
      place={drawnPlace(item.place)}
      position={item.setup.position}
      extent_m={extent_m}
      lit={at === null ? null : { outrigger: at }}
      onTouch={onTouch && ((what) => 'outrigger' in what && onTouch(what.outrigger))}
    />
  )
}

/** Whether an answer was right: what, how it reads elsewhere in the product, and where. */
export function StandTold({ item, machine, answer }: { item: StandItem; machine: OutriggerCrane; answer: Judged }) {
  const say = useSay()
  return (
    <Outcome item={item} answer={answer}>
      {item.wrong !== 'nothing' && (
        <p>
          <strong>{t`${opinionWords[item.wrong]}.`}</strong>{' '}
          {item.where.length > 0 && (
            <span className="inline-block first-letter:uppercase">{t`${item.where.map((id) => labelOf(machine, id)).join(', ')}.`}</span>
          )}
        </p>
      )}
      {item.findings.slice(0, 1).map((f: Finding) => {
        const { what, todo } = findingWords(f, say)
        return (
          <p key={f.id}>
            {what} {todo}
          </p>
        )
      })}
      {item.wrong === 'leg-short' && (
        <p>{t`That sheet was made for every leg as far out as it says; with one short it rates nothing.`}</p>
      )}
      {item.wrong === 'tail-room' && (
        <p>{t`A tail that turns keeps half a metre from everything fixed, or nobody is let in there.`}</p>
      )}
      {item.wrong === 'nothing' && <p>{t`It stands as that sheet asks, by level, ground, edges and tail.`}</p>}
    </Outcome>
  )
}
