import { byUse, type Finding, found, shareOf } from '../finding/finding'
import type { WayPart } from '../parts/truck-steps'
import { g_mps2 } from '../physics'
import { high, low, nominal } from '../quantity/measured'
import { axlePlate } from './axle-plate'
import { type AxleOn, hasPlate, onFloor } from './on-floor'
import type { AxleLoads, TowContext } from './tow-context'

interface Piece {
  part: WayPart
  name: string
  i: number
}
const nameOf = (part: WayPart, i: number) => part.label || `${part.kind.charAt(0).toUpperCase()}${part.kind.slice(1)} ${i + 1}`
const piecesOf = ({ step }: TowContext): Piece[] => step.way.map((part, i) => ({ part, i, name: nameOf(part, i) }))

/** Both axles at every corner of the doubt, level and on each piece of the way. */
function everywhere(ctx: TowContext): AxleLoads[] {
  const grades = new Set([0, ...ctx.step.way.map((p) => p.grade_pct)])
  return ctx.onArm.flatMap((on) => [...grades].map((grade) => ctx.axles(on, grade)))
}

export const towMass = ({ onArm }: TowContext): Finding[] =>
  onArm.length > 0 ? [] : [found({ check: 'mass', verdict: 'not-proven', reason: 'lifted-unknown', detail: {} })]

/** It is set up for it: a way of standing made for the other is another machine. */
export function towMotion({ state }: TowContext): Finding[] {
  if (!state) return []
  const detail = { label: state.label }
  return state.for === 'tow'
    ? [found({ check: 'motion', verdict: 'inside', reason: 'allowed', detail })]
    : [found({ check: 'motion', verdict: 'outside', reason: 'made-otherwise', detail })]
}

/** The arm by how far it is drawn out. */
export function towArm(ctx: TowContext): Finding[] {
  const cases = ctx.onArm.map((on) => ({ ...on, limit: ctx.rated_kg(on.overhang_m) }))
  if (cases.length === 0) return []
  const worst = cases.reduce((a, b) => (b.lifted_kg / b.limit > a.lifted_kg / a.limit ? b : a))
  const utilisation = shareOf(worst.lifted_kg, worst.limit)
  return [
    found({
      check: 'structure',
      subject: 'arm',
      verdict: byUse(utilisation, ctx.near_share),
      reason: 'arm',
      quantity: 'mass',
      measured: worst.lifted_kg,
      nominal: ctx.step.lifted_kg === null ? 0 : nominal(ctx.step.lifted_kg),
      limit: worst.limit,
      utilisation,
      detail: { out_m: worst.overhang_m },
    }),
  ]
}

/** Both axles against their plates, and what stays on the front one to steer and brake with. */
export function towAxles(ctx: TowContext): Finding[] {
  const all = everywhere(ctx)
  if (all.length === 0) return []
  const nominally = ctx.axles({ lifted_kg: nominal(ctx.step.lifted_kg ?? 0), overhang_m: nominal(ctx.step.overhang_m) }, 0)
  const plates = [ctx.front, ctx.rear].map(({ id, label, rating_kg }): Finding => {
    const measured_kg = Math.max(...all.map((a) => a[`${id}_kg`]), ctx.unladen[`${id}_kg`])
    const empty = measured_kg <= ctx.unladen[`${id}_kg`]
    return axlePlate({ id, label, measured_kg, nominal_kg: nominally[`${id}_kg`], rating_kg, empty }, ctx.near_share)
  })
  const left = Math.min(...all.map((a) => a.front_kg)) / ctx.unladen.front_kg
  const limit = ctx.tow.leastFrontShare
  const utilisation = shareOf(limit, left)
  const figures = { quantity: 'share', measured: left, nominal: nominally.front_kg / ctx.unladen.front_kg, limit } as const
  const verdict = byUse(utilisation, ctx.near_share)
  return [
    ...plates,
    found({ check: 'axle', subject: 'steered', verdict, reason: 'front-left', ...figures, utilisation, detail: {} }),
  ]
}

/** Tyres, at the most that their axle carries. */
export function towWheels(ctx: TowContext): Finding[] {
  const { standing } = ctx.plan.setup
  const all = everywhere(ctx)
  if (all.length === 0 || standing.on !== 'wheels') return []
  if (standing.tyres === null) return [found({ check: 'wheel', verdict: 'not-proven', reason: 'not-looked-at', detail: {} })]
  return [ctx.front, ctx.rear].map((axle) => {
    const detail = { label: axle.label, empty: false }
    const base = { check: 'wheel', subject: axle.id } as const
    if (axle.tyre_kg === undefined) return found({ ...base, verdict: 'not-proven', reason: 'no-figure', detail })
    const measured = Math.max(...all.map((a) => a[`${axle.id}_kg`])) / (2 * axle.wheels)
    const utilisation = shareOf(measured, axle.tyre_kg)
    const figures = { quantity: 'mass', measured, nominal: measured, limit: axle.tyre_kg, utilisation } as const
    return found({ ...base, verdict: byUse(utilisation, ctx.near_share), reason: 'rating', ...figures, detail })
  })
}

/** What it stands on and what it drives over. */
export function towFloor(ctx: TowContext): Finding[] {
  const { standing } = ctx.plan.setup
  const floors = [
    { ground: standing.on === 'wheels' ? standing.ground : null, id: 'stand', grade_pct: 0, plate: false },
    ...ctx.step.way.map((part, i) => ({ ground: part.floor, id: `${i}`, grade_pct: part.grade_pct, plate: hasPlate(part) })),
  ]
  return floors.flatMap(({ ground, id, grade_pct, plate }): Finding[] => {
    const loads = ctx.onArm.map((on) => ctx.axles(on, grade_pct))
    if (loads.length === 0) return []
    const each = [ctx.front, ctx.rear].map((axle): AxleOn => {
      const axle_N = Math.max(...loads.map((l) => l[`${axle.id}_kg`])) * g_mps2
      const factor = plate ? 1 : ctx.machine.wheels.floorFactor
      return { id: axle.id, label: axle.label, axle_N, wheel_N: (axle_N / (2 * axle.wheels)) * factor }
    })
    const total_N = (ctx.own_kg + Math.max(...ctx.onArm.map((on) => on.lifted_kg))) * g_mps2
    return onFloor(ground, each, total_N, ctx.near_share, id)
  })
}

/**
 * How wide a turn is swept: from the outer front corner of what tows to the inner side of what follows, whose axle keeps √(r² + o² − l²) from
 * the middle of the turn; null: it cannot follow round so tight a turn.
 */
export function sweptTowing(
  { wheelbase_m, tow }: Pick<TowContext, 'wheelbase_m' | 'tow'>,
  turn_m: number,
  { overhang_m, toAxle_m, halfWidth_m }: { overhang_m: number; toAxle_m: number; halfWidth_m: number },
): number | null {
  const follows = turn_m ** 2 + overhang_m ** 2 - toAxle_m ** 2
  if (follows <= 0) return null
  const outer = Math.hypot(turn_m + tow.halfWidth_m, wheelbase_m + tow.frontOverhang_m)
  const inner = Math.min(Math.sqrt(follows) - halfWidth_m, turn_m - tow.halfWidth_m)
  return inner <= 0 ? null : outer - inner
}

/** Width, height and turns, piece by piece. */
export function towWay(ctx: TowContext): Finding[] {
  const { step, plan, tow, near_share } = ctx
  const { sideGap_m, headGap_m } = plan.policy.trucks
  const { size } = plan.lift.hung.load
  const gap = ({ i, name }: Piece, what: 'width' | 'height' | 'aisle', left_m: number, needed_m: number): Finding => {
    const utilisation = shareOf(needed_m, left_m)
    const figures = { quantity: 'length', measured: left_m, nominal: left_m, limit: needed_m, utilisation } as const
    const detail = { piece: name, what }
    return found({
      check: 'way',
      subject: `${i}-${what}`,
      verdict: byUse(utilisation, near_share),
      reason: 'gap',
      ...figures,
      detail,
    })
  }
  const open = ({ i, name }: Piece, reason: 'no-width' | 'no-load-size' | 'no-radius' | 'no-axle'): Finding =>
    found({ check: 'way', subject: `${i}`, verdict: 'not-proven', reason, detail: { piece: name } })
  return piecesOf(ctx).flatMap((piece): Finding[] => {
    const { part } = piece
    if (part.width_m === null) return [open(piece, 'no-width')]
    if (step.laden && (!size || size.width_m === null || size.height_m === null)) return [open(piece, 'no-load-size')]
    const wide_m = Math.max(2 * tow.halfWidth_m, size?.width_m ?? 0)
    const tall_m = (size?.height_m ?? 0) + liftedBy_m
    const heights = part.height_m === null ? [] : [gap(piece, 'height', part.height_m - tall_m, headGap_m)]
    if (part.kind !== 'turn') return [gap(piece, 'width', part.width_m - wide_m, 2 * sideGap_m), ...heights]
    if (part.radius_m === undefined) return [open(piece, 'no-radius'), ...heights]
    if (step.toAxle_m === null) return [open(piece, 'no-axle'), ...heights]
    const swept = sweptTowing(ctx, part.radius_m, {
      overhang_m: low(step.overhang_m),
      toAxle_m: high(step.toAxle_m),
      halfWidth_m: (size?.width_m ?? 0) / 2,
    })
    if (swept === null) {
      const detail = { piece: piece.name }
      return [found({ check: 'way', subject: `${piece.i}-aisle`, verdict: 'outside', reason: 'too-tight', detail }), ...heights]
    }
    return [gap(piece, 'aisle', part.width_m - swept, 2 * sideGap_m), ...heights]
  })
}

/** How much higher the lifted end stands than on its own wheels, metres. */
const liftedBy_m = 0.3

/** What cross-fall and turns take from the room to its outer wheels. */
export function towTravel(ctx: TowContext): Finding[] {
  const { step, tow, near_share, plan, front, rear } = ctx
  const { stabilityShare } = plan.policy.trucks
  if (ctx.onArm.length === 0) return []
  const half_m = Math.min(front.halfTrack_m, rear.halfTrack_m)
  return piecesOf(ctx).map(({ part, name, i }) => {
    const cross = Math.abs(part.cross_pct) / 100
    const room_m = half_m - tow.cgHeight_m * cross
    const { radius_m } = part
    const permitted_mps =
      radius_m === undefined
        ? null
        : Math.sqrt(Math.max(0, (stabilityShare * half_m - tow.cgHeight_m * cross) / tow.cgHeight_m) * g_mps2 * radius_m)
    const base = { check: 'travel', subject: `${i}` } as const
    if (radius_m !== undefined && step.speed_mps === null) {
      const detail = { piece: name }
      return found({ ...base, verdict: 'not-proven', reason: 'no-speed', quantity: 'speed', limit: permitted_mps ?? 0, detail })
    }
    const turning = radius_m === undefined ? 0 : high(step.speed_mps ?? 0) ** 2 / (g_mps2 * radius_m)
    const m = room_m - tow.cgHeight_m * turning
    const utilisation = Math.max(0, half_m - m) / half_m / stabilityShare
    const figures = { quantity: 'length', measured: m, nominal: m, limit: half_m, utilisation } as const
    const detail = { piece: name, edge: 'side', permitted_mps } as const
    return found({ ...base, verdict: byUse(utilisation, near_share), reason: 'margin', ...figures, detail })
  })
}

/** Its own brakes hold the vehicle behind as well, of which only what is lifted presses on them. */
export function towTraction(ctx: TowContext): Finding[] {
  const { step, tow, plan, near_share, own_kg } = ctx
  const { mass_kg, massSource } = plan.lift.hung.load
  if (ctx.onArm.length === 0) return []
  return piecesOf(ctx).map(({ part, name, i }) => {
    const base = { check: 'traction', subject: `${i}` } as const
    if (step.laden && (mass_kg === null || massSource === null))
      return found({ ...base, verdict: 'not-proven', reason: 'towed-unknown', detail: { piece: name } })
    const p = Math.atan(part.grade_pct / 100)
    const lifted_kg = Math.min(...ctx.onArm.map((on) => on.lifted_kg))
    const behind_kg = Math.max(0, (step.laden && mass_kg !== null ? high(mass_kg) : 0) - lifted_kg)
    const whole_kg = own_kg + lifted_kg + behind_kg
    // Downhill it brakes against the slope, uphill standing it holds against it.
    const needed = Math.max(Math.abs(Math.sin(p)), tow.braking_mps2 / g_mps2 - Math.sin(p))
    const measured = (needed * whole_kg) / ((own_kg + lifted_kg) * Math.cos(p))
    const limit = plan.policy.trucks.friction[part.surface]
    const utilisation = shareOf(measured, limit)
    const figures = { quantity: 'share', measured, nominal: measured, limit, utilisation } as const
    const detail = { piece: name, surface: part.surface }
    return found({ ...base, verdict: byUse(utilisation, near_share), reason: 'friction', ...figures, detail })
  })
}
