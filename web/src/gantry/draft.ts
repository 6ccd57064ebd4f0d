import type { Shift } from '@geolabe/contract'
import {
  type GantryMachine,
  high,
  type LiftPlan,
  low,
  nominal,
  type Place,
  type SetupPlan,
  type Standing,
  type Step,
  type Tol,
  towersOf,
} from '@geolabe/core'
import { loadOf } from '../prove/load-of'
import type { OutdoorDraft } from '../prove/outdoor-draft'
import { unread } from '../setup/fall-fields'

type Towers = Extract<Standing, { on: 'towers' }>

export interface GantrySetupDraft {
  /** Between the headers, and between the two towers of each, measured. */
  apart_m: Tol | null
  wide_m: Tol | null
  ground: string | null
  /** A mat of the place under every tower; null: on the ground itself. */
  plate: string | null
  linkage: Towers['linkage']
  fall: Towers['fall']
  confirmed: SetupPlan['confirmed']
}

const between = (a: Tol, b: Tol): Tol => {
  const value = nominal(a) - nominal(b)
  const tolerance = high(a) - low(a) === 0 && high(b) - low(b) === 0 ? 0 : (high(a) - low(a) + high(b) - low(b)) / 2
  return tolerance === 0 ? value : { value, tolerance }
}

export function firstGantrySetup({ gantry }: GantryMachine, shift: Shift): GantrySetupDraft {
  const last = shift.setups.at(-1)?.plan.standing
  const stood = last?.on === 'towers' ? last : null
  const at = (id: string) => stood?.towers.find((t) => t.id === id)
  const { front, rear } = gantry.stand.headers
  const [a, b, c] = [at(front.left), at(front.right), at(rear.left)]
  return {
    apart_m: a && c ? between(a.x_m, c.x_m) : null,
    wide_m: a && b ? between(a.y_m, b.y_m) : null,
    ground: stood?.towers[0]?.ground?.id ?? null,
    plate: stood?.towers[0]?.plate?.id ?? null,
    linkage: stood?.linkage ?? 'one-point-per-header',
    fall: unread,
    confirmed: [],
  }
}

/** Is a draft that was kept on the device of today's shape? */
export const isGantrySetup = (d: Partial<GantrySetupDraft>): boolean =>
  typeof d.fall === 'object' && typeof d.linkage === 'string' && Array.isArray(d.confirmed)

/** Half of a distance to either side of the middle. */
const half = (v: Tol, sign: number): Tol =>
  typeof v === 'number' ? (sign * v) / 2 : { value: (sign * v.value) / 2, tolerance: v.tolerance / 2 }

/** Towers evenly about their middle; none while they are not measured. */
export function towersAt({ gantry }: GantryMachine, d: GantrySetupDraft, place: Place): Towers['towers'] {
  const { apart_m, wide_m } = d
  if (apart_m === null || wide_m === null) return []
  const ground = place.ground.find((g) => g.id === (d.ground ?? place.defaultGround)) ?? null
  const plate = place.mats.find((m) => m.id === d.plate) ?? null
  const { front } = gantry.stand.headers
  return towersOf(gantry).map((id, i) => ({
    id,
    x_m: half(apart_m, id === front.left || id === front.right ? 1 : -1),
    y_m: half(wide_m, i % 2 === 0 ? 1 : -1),
    ground,
    plate,
  }))
}

/** On the track that its place has marked for it; without a mark where anything stands first. */
export function gantryPlanOf(d: GantrySetupDraft, machine: GantryMachine, place: Place): SetupPlan {
  const at = place.positions.find((p) => p.madeFor === 'towers') ?? place.positions[0]
  const { x_m, y_m, heading_deg } = at ?? { x_m: 0, y_m: 0, heading_deg: 0 }
  return {
    format: 'geolabe.setup/2',
    place: place.id,
    position: { x_m, y_m, heading_deg },
    standing: { on: 'towers', towers: towersAt(machine, d, place), fall: d.fall, linkage: d.linkage },
    fitted: {},
    level: { pitch_deg: null, roll_deg: null, levelVerified: false },
    confirmed: d.confirmed,
  }
}

/** A lift between towers as people plan it: raised, travelled with, shifted to one side, put down. */
export interface Work {
  from_m: Tol
  raised_m: Tol
  travel_m: number
  shift_m: number
  down_m: Tol
}

export function workIn({ steps }: LiftPlan): Work {
  const hoists = steps.filter((s) => s.do === 'hoist')
  const [up, down] = [hoists[0], hoists.at(-1)]
  const travelled = (of: 'frame' | 'load') => {
    const s = steps.find((x) => x.do === 'traverse' && x.of === of)
    return s?.do === 'traverse' ? nominal(s.to_m) - nominal(s.from_m) : 0
  }
  return {
    from_m: up?.from_m ?? 0,
    raised_m: up?.to_m ?? 0,
    travel_m: travelled('frame'),
    shift_m: travelled('load'),
    down_m: down?.to_m ?? 0,
  }
}

export function withWork(lift: LiftPlan, to: Partial<Work>): LiftPlan {
  const w = { ...workIn(lift), ...to }
  const hoist = (from_m: Tol, to_m: Tol): Step => ({ do: 'hoist', laden: true, from_m, to_m, which: 'all' })
  const traverse = (of: 'frame' | 'load', by: number): Step[] =>
    by === 0 ? [] : [{ do: 'traverse', laden: true, of, from_m: 0, to_m: by }]
  const steps = [
    hoist(w.from_m, w.raised_m),
    ...traverse('frame', w.travel_m),
    ...traverse('load', w.shift_m),
    hoist(w.raised_m, w.down_m),
  ]
  return { ...lift, steps }
}

/** A first plan: a load whose centre is known, raised within the first stage. */
export function firstRaising({ gantry }: GantryMachine, place: Place, shift: Shift): OutdoorDraft {
  const last = shift.lifts.at(-1)
  if (last && isRaising({ lift: last.plan }))
    return { lift: last.plan, wind_mps: null, roofShut: last.conditions.roofShut ?? false }
  const load = loadOf(place.loads.find((l) => l.cg && nominal(l.cg.z_m) < 0))
  const up = gantry.stages[0]?.upTo_m ?? 3
  const bare: LiftPlan = { format: 'geolabe.lift/2', hung: { load, rigging: [] }, steps: [] }
  return { lift: withWork(bare, { from_m: up * 0.75, raised_m: up, down_m: up * 0.75 }), wind_mps: null, roofShut: false }
}

export const isRaising = ({ lift }: { lift?: LiftPlan | undefined }): boolean =>
  lift?.format === 'geolabe.lift/2' &&
  lift.steps.every((s) => s.do === 'hoist' || s.do === 'traverse') &&
  lift.steps[0]?.do === 'hoist'
