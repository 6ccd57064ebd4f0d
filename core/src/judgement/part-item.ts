import { judge } from '../inspection/judge'
import { limitsOf, type Measure } from '../inspection/measure'
import type { WalkItem } from '../inspection/walkround'
import type { Machine } from '../machine/machine'
import { Refusal } from '../refusal'
import { type Random, spread } from './lots'
import { isSeenFault, type PartFault, type PartPlace, type Plate, partFaults, plateOf, type SeenFault } from './plates'

/** What was measured of a part, and where on it. */
export interface PartReading {
  measure: Extract<Measure, { kind: 'wear' }>
  reading: number
  at: PartPlace
}

/** A part as somebody on a walk-round sees and measures it, who says that it is in order: what is wrong with it, and where? */
export interface PartItem {
  of: 'part'
  /** The item of the walk-round. */
  item: string
  label: string
  plate: Plate
  read: PartReading | null
  /** What is seen on it; `size`: 1 as large as it gets, smaller the nearer to what is overlooked. */
  seen: { fault: SeenFault; at: PartPlace; size: number } | null
  /** Mud on it, which is nothing: along and up, shares of the drawing. */
  mud: readonly [number, number] | null
  wrong: PartFault | 'nothing'
  where: PartPlace[]
}

interface Part {
  item: WalkItem
  plate: Plate
}

/** The parts of a machine's walk-round that are drawn to be judged. */
const partsOf = (machine: Machine): Part[] =>
  machine.walkround.zones.flatMap((zone) =>
    zone.items.flatMap((item) => {
      const plate = plateOf(item.piece)
      return plate ? [{ item, plate }] : []
    }),
  )

/** What items of parts are made from, a line each: a walk-round that says otherwise makes others. */
export const partLines = (machine: Machine): string[] =>
  partsOf(machine).map(({ item: { id, label, piece, measure: m } }) =>
    [id, label, piece, ...(m?.kind === 'wear' ? [m.wear, m.nominal, m.makerLimit] : [])].join(' '),
  )

/** Where a part is measured; null: nowhere on its drawing. */
function measuredOn({ item, plate }: Part): { measure: PartReading['measure']; places: readonly PartPlace[] } | null {
  const { measure } = item
  const places = measure?.kind === 'wear' ? plate.measured[measure.wear] : undefined
  return measure?.kind === 'wear' && places ? { measure, places } : null
}

const offers = (part: Part, fault: PartFault): boolean =>
  isSeenFault(fault) ? part.plate.seen[fault] !== undefined : measuredOn(part) !== null

/** Which faults can be planted in the parts of a machine's walk-round. */
export const partFaultsOf = (machine: Machine): PartFault[] => {
  const parts = partsOf(machine)
  return partFaults.filter((f) => parts.some((p) => offers(p, f)))
}

const one = <T>(random: Random, of: readonly T[]): T | undefined => of[Math.floor(random() * of.length)]

/** What of its limit a part in order has used at most, one near it between, one at it at least. */
const used_share = { ok: [0, 0.55], watch: [0.8, 0.98], discard: [1.02, 1.12] } as const
type Verdict = keyof typeof used_share

/** A reading that is judged so by the measure's own rule; null: none was found. */
function readingFor(random: Random, m: PartReading['measure'], want: Verdict, level: number): number | null {
  const { least, most } = limitsOf(m)
  const limit = one(
    random,
    [least, most].filter((x) => x !== null),
  )
  if (limit === undefined) return null
  const fresh = m.nominal ?? (limit === least ? 2.5 * limit : 0)
  // Of what tells tips apart the blade's length is no reading.
  const from = limit === least || limit > fresh ? fresh : 0
  const [low, high] = used_share[want]
  const share = spread(random, low, want === 'discard' ? high + 0.4 * (1 - level) : high)
  const step = Math.abs(limit - from) >= 40 ? 1 : 0.1
  const reading = Number((Math.round((from + share * (limit - from)) / step) * step).toFixed(1))
  try {
    const { verdict, query } = judge(m, reading)
    return verdict === want && query === null ? reading : null
  } catch (e) {
    if (e instanceof Refusal) return null
    throw e
  }
}

const verdictOf = (fault: PartFault | null): Verdict =>
  fault === 'part-near' ? 'watch' : fault === 'part-worn' ? 'discard' : 'ok'
const most_tries = 60
/** From this level on there is mud that is nothing. */
const muddy_level = 0.3

/**
 * A part of the machine's walk-round with one thing wrong, or with none; null: none that is told apart was found. What is seen on it has its
 * reading in order, and what is worn shows nothing else.
 *
 * @example partItem(randomFrom(1), puffin, { wrong: 'part-worn', level: 0, right: false })?.where // ['heel']
 */
export function partItem(
  random: Random,
  machine: Machine,
  { wrong, level, right }: { wrong: PartFault; level: number; right: boolean },
): PartItem | null {
  const parts = partsOf(machine).filter((p) => offers(p, wrong))
  const fault = right ? null : wrong
  for (let i = 0; i < most_tries; i++) {
    const part = one(random, parts)
    if (!part) return null
    const { item, plate } = part
    const measured = measuredOn(part)
    const at = measured && one(random, measured.places)
    const reading = measured && readingFor(random, measured.measure, verdictOf(fault), level)
    const spot = fault && isSeenFault(fault) ? one(random, plate.seen[fault] ?? []) : undefined
    const size = 1 - spread(random, 0.3, 0.7) * level
    const mud = [random(), random()] as const
    if (measured && reading === null) continue
    const read = measured && at && reading !== null ? { measure: measured.measure, reading, at } : null
    const seen = fault && isSeenFault(fault) && spot ? { fault, at: spot, size } : null
    if (fault && !(isSeenFault(fault) ? seen : read)) continue
    const where = seen ? [seen.at] : fault && read ? [read.at] : []
    return {
      of: 'part',
      item: item.id,
      label: item.label,
      plate,
      read,
      seen,
      mud: level >= muddy_level ? mud : null,
      wrong: fault ?? 'nothing',
      where,
    }
  }
  return null
}
