import type { Conditions, LiftPlan, SetupPlan } from '../lift/plan'
import type { Machine } from '../machine/machine'
import { askedFor } from '../machine/needs'
import type { Place, Policy } from '../place/place'
import type { MachinePosition } from '../place/standing'
import type { RatingTable } from '../rating/table'
import type { WantedLift } from './wanted'

/** What is asked of every machine alike. */
export interface Asked {
  wanted: WantedLift
  place: Place
  policy: Policy
  conditions: Conditions
}

/** One of them, with its tables. */
export interface Offered {
  machine: Machine
  tables: readonly RatingTable[]
}

/** Where it could stand: a position that is marked there, or one found between them. */
export interface Stand extends MachinePosition {
  /** Only for one kind of support. */
  madeFor?: Place['positions'][number]['madeFor'] | undefined
  /** Null: found, and marked nowhere. */
  id: string | null
  label: string
}

/** One thing that has to be done for it, beside what every lift asks for. */
export type Effort =
  | { work: 'feet'; count: number }
  | { work: 'mats'; count: number }
  | { work: 'counterweight'; label: string }
  | { work: 'boom'; boom_m: number }
  | { work: 'reeve'; parts: number }
  | { work: 'tool'; label: string }
  | { work: 'slabs'; count: number }
  | { work: 'towers'; count: number }
  | { work: 'slings'; count: number }
  | { work: 'drive'; way_m: number }
  | { work: 'close'; label: string }

/** What is taken as done when a lift is only thought of; each is asked for again when it is set up. */
export type Assumed =
  | { what: 'confirmed'; label: string }
  | { what: 'level' | 'radius-measured' | 'display' | 'battery' | 'signals' | 'tyres' | 'aligned' | 'papers' | 'marks' }
  | { what: 'driven'; speed_mps: number }
  | { what: 'towers-at'; apart_m: number; wide_m: number }
  | { what: 'slings-at'; apart_m: number }
  | { what: 'operator-rides'; mass_kg: number }

/** A machine set up in one way, and the lift done with it. */
export interface Way {
  stand: Stand
  setup: SetupPlan
  lift: LiftPlan
  effort: readonly Effort[]
  assumed: readonly Assumed[]
}

/** Why a machine is not even tried. */
export type Unable =
  | { reason: 'out-of-reach'; radius_m: number; most_m: number }
  | { reason: 'too-near'; radius_m: number }
  | { reason: 'no-pose' }
  | { reason: 'too-heavy'; most_kg: number }
  | { reason: 'no-room'; label: string; inTheWay: string }
  | { reason: 'no-stand' }
  | { reason: 'under-its-beam' }
  | { reason: 'straight-up'; track_m: number }
  | { reason: 'off-its-track' }
  | { reason: 'too-high'; most_m: number }
  | { reason: 'too-low'; least_m: number }
  | { reason: 'no-way' }
  | { reason: 'no-hull' }
  | { reason: 'not-provable' }
  | { reason: 'refused'; words: string }

/** How much work a way is, as so many things to be placed, changed or fetched. */
export function workOf(effort: readonly Effort[]): number {
  return effort.reduce((sum, e) => {
    switch (e.work) {
      case 'feet':
      case 'mats':
      case 'towers':
      case 'slabs':
      case 'slings':
        return sum + e.count
      // A boom pinned longer, or a counterweight changed, takes a crew and time.
      case 'counterweight':
      case 'boom':
        return sum + 4
      case 'drive':
        return sum
      default:
        return sum + 1
    }
  }, 0)
}

/** What everything to be confirmed is signed with while nobody has. */
export const nobody = { by: 'assumed', at: '2000-01-01T00:00:00.000Z' } as const

/** What a level has a check of its own for. */
const byTheLevel = 'bubble'

/** A machine set up at a stand with everything confirmed that its way of standing asks for; and what of that was taken as done. */
export function stoodAt(
  machine: Machine,
  { place }: Asked,
  at: MachinePosition,
  rest: Pick<SetupPlan, 'standing' | 'fitted'>,
): { setup: SetupPlan; confirmed: Assumed[] } {
  const asks = askedFor(machine, rest.standing, rest.fitted).filter((e) => e.id !== byTheLevel)
  return {
    setup: {
      format: 'geolabe.setup/2',
      place: place.id,
      position: { x_m: at.x_m, y_m: at.y_m, heading_deg: at.heading_deg },
      ...rest,
      level: { pitch_deg: 0, roll_deg: 0, levelVerified: true },
      confirmed: asks.map((e) => ({ id: e.id, ...nobody })),
    },
    confirmed: asks.map((e) => ({ what: 'confirmed', label: e.label })),
  }
}
