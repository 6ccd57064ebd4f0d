import type { Shift } from '@geolabe/contract'
import {
  type DriveStep,
  high,
  type LiftPlan,
  nominal,
  type Place,
  type SetupPlan,
  type Standing,
  type Step,
  type StraddleMachine,
  type Tol,
} from '@geolabe/core'
import { loadOf } from '../prove/load-of'
import type { OutdoorDraft } from '../prove/outdoor-draft'
import { unread } from '../setup/fall-fields'
import { firstWay } from '../truck/draft'

type Frame = Extract<Standing, { on: 'frame' }>

export interface StraddleSetupDraft {
  /** Where the slings of each hoist hang, ahead of the middle of its wheels; null: not measured. */
  slings: Record<string, Tol | null>
  synchronised: Frame['synchronised']
  ground: string | null
  fall: Frame['fall']
  confirmed: SetupPlan['confirmed']
}

export function firstStraddleSetup({ hoists }: StraddleMachine, shift: Shift): StraddleSetupDraft {
  const last = shift.setups.at(-1)?.plan.standing
  const stood = last?.on === 'frame' ? last : null
  return {
    slings: Object.fromEntries(hoists.each.map((h) => [h.id, stood?.hoists.find((x) => x.id === h.id)?.x_m ?? null])),
    // What its panel showed on another day says nothing of today.
    synchronised: null,
    ground: stood?.ground?.id ?? null,
    fall: unread,
    confirmed: [],
  }
}

/** Is a draft that was kept on the device of today's shape? */
export const isStraddleSetup = (d: Partial<StraddleSetupDraft>): boolean =>
  typeof d.slings === 'object' && typeof d.fall === 'object' && Array.isArray(d.confirmed)

/** Astride the dock that its place has marked; without a mark where anything stands first. */
export function straddlePlanOf(d: StraddleSetupDraft, place: Place): SetupPlan {
  const at = place.positions.find((p) => p.madeFor === 'frame') ?? place.positions[0]
  const { x_m, y_m, heading_deg } = at ?? { x_m: 0, y_m: 0, heading_deg: 0 }
  return {
    format: 'geolabe.setup/2',
    place: place.id,
    position: { x_m, y_m, heading_deg },
    standing: {
      on: 'frame',
      hoists: Object.entries(d.slings).flatMap(([id, x_m]) => (x_m === null ? [] : [{ id, x_m }])),
      synchronised: d.synchronised,
      ground: place.ground.find((g) => g.id === (d.ground ?? place.defaultGround)) ?? null,
      fall: d.fall,
    },
    fitted: {},
    level: { pitch_deg: null, roll_deg: null, levelVerified: false },
    confirmed: d.confirmed,
  }
}

/** A boat as it is moved: raised, driven, put down; a way there, or none. */
export interface Carry {
  raised_m: Tol
  down_m: Tol
  drive: DriveStep | null
}

export function carryIn({ steps }: LiftPlan): Carry {
  const hoists = steps.filter((s) => s.do === 'hoist')
  const drive = steps.find((s) => s.do === 'drive')
  return { raised_m: hoists[0]?.to_m ?? 0, down_m: hoists.at(-1)?.to_m ?? 0, drive: drive?.do === 'drive' ? drive : null }
}

export function withCarry(lift: LiftPlan, to: Partial<Carry>): LiftPlan {
  const c = { ...carryIn(lift), ...to }
  const hoist = (from_m: Tol, to_m: Tol): Step => ({ do: 'hoist', laden: true, from_m, to_m, which: 'all' })
  // It travels as high as it was raised.
  const way: Step[] = c.drive ? [{ ...c.drive, height_m: nominal(c.raised_m) }] : []
  return { ...lift, steps: [hoist(0, c.raised_m), ...way, hoist(c.raised_m, c.down_m)] }
}

/** A first plan: a boat whose centre is known, raised clear and driven straight ahead. */
export function firstCarry(place: Place, shift: Shift): OutdoorDraft {
  const last = shift.lifts.at(-1)
  if (last && isCarry({ lift: last.plan })) return { lift: last.plan, wind_mps: null, roofShut: false }
  const load = loadOf(place.loads.find((l) => l.cg && high(l.cg.z_m) > 0 && (l.size?.length_m ?? 0) > 6))
  const belly = { halfBreadth_m: null, rise_m: null, wll_kg: null }
  const bare: LiftPlan = { format: 'geolabe.lift/2', hung: { load, rigging: [], belly }, steps: [] }
  return {
    lift: withCarry(bare, { raised_m: 1.5, down_m: 0.6, drive: { ...firstWay(place), height_m: 1.5 } }),
    wind_mps: null,
    roofShut: false,
  }
}

export const isCarry = ({ lift }: { lift?: LiftPlan | undefined }): boolean =>
  lift?.format === 'geolabe.lift/2' &&
  lift.steps.every((s) => s.do === 'hoist' || s.do === 'drive') &&
  lift.steps[0]?.do === 'hoist'
