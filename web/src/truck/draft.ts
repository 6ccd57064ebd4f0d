import type { Shift } from '@geolabe/contract'
import {
  type Case,
  type DriveStep,
  jointsFor,
  type LiftPlan,
  type MastStep,
  type Place,
  type ReachPart,
  type ReachPoint,
  type ReachStep,
  type SetupPlan,
  type Tol,
  type TruckMachine,
  wayAlong,
} from '@geolabe/core'
import { loadOf } from '../prove/load-of'
import type { OutdoorDraft } from '../prove/outdoor-draft'

export interface TruckSetupDraft {
  /** Null: what lies there by the place's plan. */
  floor: string | null
  attachment: string
  /** Of a truck with feet ahead: down, or not. */
  feet?: 'wheels' | 'stabilisers'
  /** The tool that its display shows; null: not read. */
  shown?: string | null
  battery_kg: number | null
  slabs: number | null
  extension_m: number | null
  pitch_deg: Tol | null
  roll_deg: Tol | null
  confirmed: SetupPlan['confirmed']
}

const forks = 'forks'

export function firstTruckSetup(machine: TruckMachine, shift: Shift): TruckSetupDraft {
  const last = shift.setups.at(-1)?.plan
  return {
    floor: last?.standing.on === 'wheels' ? (last.standing.ground?.id ?? null) : null,
    // An arm has a tool at its end, a carriage has forks.
    attachment: last?.fitted.attachment ?? ((machine.truck.boom && machine.truck.attachments?.[0]?.id) || forks),
    feet: last?.standing.on === 'wheels' && last.standing.state === 'stabilisers' ? 'stabilisers' : 'wheels',
    // What was read on another day says nothing of today.
    shown: null,
    battery_kg: last?.fitted.battery_kg ?? null,
    slabs: last?.fitted.slabs ?? null,
    extension_m: last?.fitted.extension_m ?? null,
    pitch_deg: null,
    roll_deg: null,
    confirmed: [],
  }
}

/** Is a draft that was kept on the device of today's shape? */
export const isTruckSetup = (d: Partial<TruckSetupDraft>): boolean =>
  typeof d.attachment === 'string' && Array.isArray(d.confirmed)

/** The first place that is marked here is where it stands; a truck's proof does not rest on where. */
export function truckPlanOf(d: TruckSetupDraft, machine: TruckMachine, place: Place): SetupPlan {
  const { x_m, y_m, heading_deg } = place.positions[0] ?? { x_m: 0, y_m: 0, heading_deg: 0 }
  const tooled = (machine.truck.attachments ?? []).length > 0
  return {
    format: 'geolabe.setup/2',
    place: place.id,
    position: { x_m, y_m, heading_deg },
    standing: {
      on: 'wheels',
      ...(machine.truck.stabilisers ? { state: d.feet ?? 'wheels' } : {}),
      ground: place.ground.find((g) => g.id === (d.floor ?? place.defaultGround)) ?? null,
      // Looked at and confirmed with the rest of what no figure shows.
      tyres: null,
    },
    fitted: {
      ...(tooled ? { attachment: d.attachment } : {}),
      ...(d.shown ? { selected: { attachment: d.shown } } : {}),
      battery_kg: d.battery_kg,
      ...(d.slabs === null ? {} : { slabs: d.slabs }),
      ...(d.extension_m === null ? {} : { extension_m: d.extension_m }),
    },
    level: { pitch_deg: d.pitch_deg, roll_deg: d.roll_deg, levelVerified: true },
    confirmed: d.confirmed,
  }
}

/** Raised as it does: by a mast, or by a boom that is drawn out. */
export type Raised = MastStep | ReachStep

const stack: MastStep = { do: 'mast', laden: true, waypoints: [{ height_m: 0.3, tilt_deg: 0, sideShift_m: 0 }] }

/** A first plan: a load that is made for forks, put down low. */
export function firstMove(machine: TruckMachine, place: Place, shift: Shift): OutdoorDraft {
  const last = shift.lifts.at(-1)
  if (last) return { lift: last.plan, wind_mps: null, roofShut: last.conditions.roofShut ?? false }
  const height_m = machine.truck.chassis.greatestHeight_m
  const { operator } = machine.truck.chassis
  const load = loadOf(place.loads.find((l) => l.cg) ?? undefined)
  const hung = { load, rigging: [], ...(operator ? { persons: [] } : {}) }
  const { reach } = machine.truck
  const steps: Raised[] = reach
    ? [placing(reach, machine.truck.faceToAxle_m, { height_m: 1.45, reach_m: 2 }, { height_m: 4, reach_m: 2.5 }, true)]
    : [{ ...stack, waypoints: [{ height_m, tilt_deg: 0, sideShift_m: 0 }] }]
  return { lift: { format: 'geolabe.lift/2', hung, steps }, wind_mps: null, roofShut: false }
}

export const isMove = (d: Partial<OutdoorDraft>): boolean =>
  d.lift?.format === 'geolabe.lift/2' && d.lift.steps.every((s) => s.do === 'mast' || s.do === 'reach' || s.do === 'drive')

export const mastOf = ({ steps }: LiftPlan): MastStep => {
  const own = steps.find((s) => s.do === 'mast')
  return own?.do === 'mast' ? own : stack
}
const raisedOf = ({ steps }: LiftPlan): Raised => {
  const own = steps.find((s) => s.do === 'mast' || s.do === 'reach')
  return own?.do === 'mast' || own?.do === 'reach' ? own : stack
}
export const reachOf = (lift: LiftPlan): ReachStep | null => {
  const own = raisedOf(lift)
  return own.do === 'reach' ? own : null
}

/** From one place to another: at one length as joints run, or drawn in, raised or lowered short, and out again. */
export function placing(reach: ReachPart, datum_m: number, from: ReachPoint, to: ReachPoint, short: boolean): ReachStep {
  const { least_deg, most_deg } = reach.angles
  // Where the boom does not get to, its proof says so.
  const between = [from, to].map((w) => ({
    boom_m: reach.lengths.least_m,
    angle_deg: Math.min(most_deg, Math.max(least_deg, jointsFor(reach, datum_m, w).angle_deg)),
  }))
  return { do: 'reach', laden: true, waypoints: [from, ...(short ? between : []), to] }
}

export const driveOf = ({ steps }: LiftPlan): DriveStep | null => {
  const own = steps.find((s) => s.do === 'drive')
  return own?.do === 'drive' ? own : null
}

/** The plan with another stack, or another way: driven there first, then stacked. */
export function withMove(lift: LiftPlan, to: { raised?: Raised; drive?: DriveStep | null }): LiftPlan {
  const drive = to.drive === undefined ? driveOf(lift) : to.drive
  return { ...lift, steps: [...(drive ? [drive] : []), to.raised ?? raisedOf(lift)] }
}

/** A first piece of a way, straight and level on the place's own ground. */
export const firstWay = (place: Place): DriveStep => ({
  do: 'drive',
  laden: true,
  way: [piece(place, place.defaultGround)],
  height_m: 0.15,
  facing: 'load-first',
  speed_mps: null,
})
export const piece = (place: Place, floor: string): DriveStep['way'][number] => ({
  kind: 'straight',
  label: '',
  length_m: 10,
  grade_pct: 0,
  cross_pct: 0,
  width_m: null,
  height_m: null,
  surface: 'dry',
  floor: place.ground.find((g) => g.id === floor) ?? null,
})

/** Driven as a line drawn over the place has it; what was said of a piece that is still on it stays said. */
export function drawn(lift: LiftPlan, place: Place, route: [number, number][]): DriveStep {
  const now = driveOf(lift) ?? firstWay(place)
  const { way } = wayAlong(place, route)
  const known = (p: DriveStep['way'][number]) => now.way.find((o) => o.kind === p.kind && o.label === p.label && p.label !== '')
  return {
    ...now,
    route,
    way: way.map((p) => {
      const before = known(p)
      return before ? { ...p, surface: before.surface, ...(p.nose !== undefined && { nose: before.nose ?? null }) } : p
    }),
  }
}

/** What of a case a truck's screens need. */
export type Conditions = Case['conditions']
