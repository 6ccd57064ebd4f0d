import type { Shift } from '@geolabe/contract'
import { type Crane, type LiftPlan, type Place, type SetupPlan, straightBoom, type Tol, weakestUnder } from '@geolabe/core'

export interface TracksSetupDraft {
  position: SetupPlan['position']
  /** Null: what lies there by the place's plan. */
  ground: string | null
  counterweight: string
  boom_m: number | null
  partsOfLine: number | null
  pitch_deg: Tol | null
  roll_deg: Tol | null
  confirmed: SetupPlan['confirmed']
}

/** The boom that is offered first: neither the shortest nor the longest. */
const usualBoom = ({ boom: { lengths_m } }: Crane) => lengths_m[Math.min(1, lengths_m.length - 1)] ?? null

export function firstTracksSetup(machine: Crane, place: Place, shift: Shift): TracksSetupDraft {
  const last = shift.setups.at(-1)?.plan
  const at = place.positions[0] ?? { x_m: 0, y_m: 0, heading_deg: 0 }
  const { x_m, y_m, heading_deg } = last?.position ?? at
  const [first] = machine.hoist.reevings
  return {
    position: { x_m, y_m, heading_deg },
    ground: last?.standing.on === 'tracks' ? (last.standing.ground?.id ?? null) : null,
    counterweight: last?.fitted.counterweight ?? machine.upper.counterweights[0]?.id ?? '',
    boom_m: last?.fitted.boom_m ?? usualBoom(machine),
    partsOfLine: last?.fitted.partsOfLine ?? first?.parts ?? null,
    pitch_deg: null,
    roll_deg: null,
    confirmed: [],
  }
}

/** Is a draft that was kept on the device of today's shape? */
export const isTracksSetup = (d: Partial<TracksSetupDraft>): boolean =>
  typeof d.position === 'object' && typeof d.counterweight === 'string' && d.boom_m !== undefined && Array.isArray(d.confirmed)

/** The ground that its place shows under the ends and the middle of its tracks: the weakest of it. */
export const groundThere = ({ tracks }: Crane, place: Place, position: SetupPlan['position']) =>
  weakestUnder(place, position, { length_m: tracks?.length_m ?? 0, width_m: (tracks?.gauge_m ?? 0) + (tracks?.width_m ?? 0) })

export function tracksPlanOf(d: TracksSetupDraft, machine: Crane, place: Place): SetupPlan {
  return {
    format: 'geolabe.setup/2',
    place: place.id,
    position: d.position,
    standing: { on: 'tracks', ground: place.ground.find((g) => g.id === d.ground) ?? groundThere(machine, place, d.position) },
    fitted: {
      counterweight: d.counterweight,
      ...(d.boom_m === null ? {} : { boom_m: d.boom_m }),
      ...(d.partsOfLine === null ? {} : { partsOfLine: d.partsOfLine }),
    },
    level: { pitch_deg: d.pitch_deg, roll_deg: d.roll_deg, levelVerified: d.confirmed.some((c) => c.id === 'bubble') },
    confirmed: d.confirmed,
  }
}

/** Nothing on the hook, a boom of some length at a radius: what the set-up by itself is looked at with. */
export function unladenAt(machine: Crane, boom_m: number): LiftPlan {
  const { radius_m } = straightBoom(machine.boom).steepest(boom_m)
  const point = { radius_m, slew_deg: 0 }
  return {
    format: 'geolabe.lift/2',
    hung: { load: { name: '', mass_kg: null, massSource: null, windArea_m2: null, dragCoefficient: 1 }, rigging: [] },
    steps: [
      {
        do: 'slew',
        laden: false,
        boom_m,
        pickUp: point,
        setDown: point,
        slewDirection: 'anticlockwise',
        radiusBasis: 'measured-under-load',
      },
    ],
  }
}
