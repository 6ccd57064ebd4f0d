import { byUse, type Finding, found, shareOf, worstVerdict } from '../finding/finding'
import type { DriveStep, WayPart } from '../parts/truck-steps'
import { g_mps2 } from '../physics'
import { high } from '../quantity/measured'
import { axlesOf, type Balance, forwardOf, marginsOf, tractionOf } from '../truck/balance'
import { besideRoute, peopleBeside } from '../truck/route'
import { tailSwing } from '../truck/tail-swing'
import type { TruckContext } from './truck-context'

/** Air that fork tips keep from a ramp's foot, metres. */
const tipAir_m = 0.05

/** Which way the nose points up on a piece, and which way it brakes. */
function goingOn({ facing }: DriveStep, part: WayPart, braking_mps2: number) {
  const sign = facing === 'load-first' ? 1 : -1
  return { pitch_rad: sign * Math.atan(part.grade_pct / 100), braking_mps2: sign * braking_mps2 }
}
const nameOf = (part: WayPart, i: number) => part.label || `${part.kind.charAt(0).toUpperCase()}${part.kind.slice(1)} ${i + 1}`

interface Piece {
  part: WayPart
  name: string
  i: number
}
const piecesOf = ({ drive }: TruckContext): Piece[] => (drive?.way ?? []).map((part, i) => ({ part, i, name: nameOf(part, i) }))

/** The worst of several findings of one piece. */
const worstOf = (findings: readonly Finding[]): Finding[] => {
  const verdict = worstVerdict(findings.map((f) => f.verdict))
  const own = findings.filter((f) => f.verdict === verdict)
  const [first] = own.sort((a, b) => (b.utilisation ?? Infinity) - (a.utilisation ?? Infinity))
  return first ? [first] : []
}

/** What slope, braking and turn take from the room to its edges, piece by piece; never more than the site's share of it. */
export function truckTravel(ctx: TruckContext): Finding[] {
  const { drive, truck, near_share, plan } = ctx
  const [pose] = ctx.poses
  if (!drive || !pose || ctx.loads.length === 0) return []
  const { stabilityShare, travelFork_m } = plan.policy.trucks
  if (drive.laden && drive.height_m > travelFork_m + 1e-9)
    return [found({ check: 'travel', verdict: 'outside', reason: 'raised', detail: { most_m: travelFork_m } })]
  const balances = ctx.loads.map((load) => ctx.balance(load, pose))
  return piecesOf(ctx).flatMap(({ part, name, i }) => {
    const sideways = Math.abs(part.cross_pct) / 100
    const turning =
      part.radius_m === undefined ? 0 : drive.speed_mps === null ? null : high(drive.speed_mps) ** 2 / (g_mps2 * part.radius_m)
    const findings = balances.flatMap((b) => {
      const level = marginsOf(truck, b)
      const after = [0, truck.chassis.braking_mps2].map((braking) =>
        marginsOf(truck, b, forwardOf(goingOn(drive, part, braking)), sideways + (turning ?? 0)),
      )
      return (['front', 'side'] as const).map((edge) => {
        const [m0, m] = [level[`${edge}_m`], Math.min(...after.map((a) => a[`${edge}_m`]))]
        const use = m0 <= 0 ? null : Math.max(0, m0 - m) / m0 / stabilityShare
        const detail = { piece: name, edge, permitted_mps: permitted(ctx, b, part) }
        const figures = { quantity: 'length', measured: m, nominal: m, limit: m0, utilisation: use } as const
        return found({ check: 'travel', subject: `${i}`, verdict: byUse(use, near_share), reason: 'margin', ...figures, detail })
      })
    })
    const unknown = turning === null && findings.every((f) => f.verdict !== 'outside')
    const least = Math.min(...balances.map((b) => permitted(ctx, b, part) ?? Infinity))
    return unknown
      ? [
          found({
            check: 'travel',
            subject: `${i}`,
            verdict: 'not-proven',
            reason: 'no-speed',
            quantity: 'speed',
            limit: least,
            detail: { piece: name },
          }),
        ]
      : worstOf(findings)
  })
}

/** The fastest that a turn may be driven: with the site's share of the room to the outer side; null: it is no turn. */
function permitted({ truck, plan }: TruckContext, b: Balance, part: WayPart): number | null {
  if (part.radius_m === undefined || part.radius_m <= 0) return null
  const cross = Math.abs(part.cross_pct) / 100
  const [still, per] = [
    marginsOf(truck, b, 0, cross).side_m,
    marginsOf(truck, b, 0, cross).side_m - marginsOf(truck, b, 0, cross + 1).side_m,
  ]
  return still <= 0 ? 0 : Math.sqrt((plan.policy.trucks.stabilityShare * still * g_mps2 * part.radius_m) / per)
}

/** Friction that its braked axle needs on each piece, braking and standing, at every corner of the load's doubt; driven empty, a step of its own. */
export function truckTraction(ctx: TruckContext): Finding[] {
  const { drive, truck, near_share, plan } = ctx
  const [pose] = ctx.poses
  if (!drive || !pose || ctx.loads.length === 0) return []
  const { friction } = plan.policy.trucks
  return piecesOf(ctx).flatMap(({ part, name, i }) => {
    const needs = ctx.loads.flatMap((load) => {
      const b = ctx.balance(load, pose)
      return [0, truck.chassis.braking_mps2].map((braking) => tractionOf(truck, b, goingOn(drive, part, braking)).needed)
    })
    const measured = Math.max(...needs)
    const limit = friction[part.surface]
    const utilisation = shareOf(measured, limit)
    const figures = { quantity: 'share', measured, nominal: measured, limit, utilisation } as const
    const detail = { piece: name, surface: part.surface }
    return [
      found({
        check: 'traction',
        subject: `${i}`,
        verdict: byUse(utilisation, near_share),
        reason: 'friction',
        ...figures,
        detail,
      }),
    ]
  })
}

/** One gap of a piece of the way against what has to be left there. */
function gap(
  ctx: TruckContext,
  { name, i }: Piece,
  what: 'width' | 'height' | 'aisle' | 'tips',
  left_m: number,
  needed_m: number,
): Finding {
  const utilisation = shareOf(needed_m, left_m)
  const figures = { quantity: 'length', measured: left_m, nominal: left_m, limit: needed_m, utilisation } as const
  const verdict = byUse(utilisation, ctx.near_share)
  return found({ check: 'way', subject: `${i}-${what}`, verdict, reason: 'gap', ...figures, detail: { piece: name, what } })
}
const open = (i: number, piece: string, reason: 'no-width' | 'no-load-size' | 'no-radius' | 'nose'): Finding =>
  found({ check: 'way', subject: `${i}`, verdict: 'not-proven', reason, detail: { piece } })

function slope(ctx: TruckContext, { part, name, i }: Piece): Finding[] {
  const { along_pct, cross_pct } = ctx.truck.chassis.grades
  return [
    { what: 'grade' as const, is: Math.abs(part.grade_pct), limit: along_pct },
    { what: 'cross-fall' as const, is: Math.abs(part.cross_pct), limit: cross_pct },
  ]
    .filter((s) => s.is > 0)
    .map(({ what, is, limit }) => {
      const utilisation = shareOf(is, limit)
      const verdict = byUse(utilisation, ctx.near_share)
      const figures = { quantity: 'share', measured: is / 100, nominal: is / 100, limit: limit / 100, utilisation } as const
      return found({ check: 'way', subject: `${i}-${what}`, verdict, reason: 'slope', ...figures, detail: { piece: name, what } })
    })
}

/** Width, height, slope, turns and the foot of every ramp, piece by piece. */
export function truckWay(ctx: TruckContext): Finding[] {
  const { drive, truck, plan, fitted } = ctx
  if (!drive) return []
  const { sideGap_m, headGap_m } = plan.policy.trucks
  const { chassis } = truck
  const size = plan.lift.hung.load.size
  const load = drive.laden ? size : null
  const wide_m = Math.max(chassis.width_m, load?.width_m ?? 0)
  // As high as it is drawn where its file does not say.
  const drawn_m = () => Math.max(...ctx.machine.outline.side.flatMap((p) => p.points.map(([, z]) => z)))
  const high_m = Math.max(
    chassis.mastLow_m ?? drawn_m(),
    drive.height_m + (load?.height_m ?? 0),
    drive.height_m + (chassis.guardAbove_m ?? 0),
  )
  const pieces = piecesOf(ctx)
  const each = pieces.flatMap((piece): Finding[] => {
    const { part, name, i } = piece
    // An uncoupled trailer tips over its landing legs or its bogie; that is not worked out here.
    if (part.kind === 'trailer' && !part.nose) return [open(i, name, 'nose')]
    if (part.width_m === null) return [open(i, name, 'no-width')]
    if (drive.laden && (!size || size.width_m === null || size.height_m === null || size.length_m === null))
      return [open(i, name, 'no-load-size')]
    // Without it nobody knows what it may be driven with.
    if (part.kind === 'turn' && part.radius_m === undefined) return [open(i, name, 'no-radius')]
    const before = pieces[i - 1]?.part.grade_pct ?? 0
    const rise = (part.grade_pct - before) / 100
    const face_m = truck.faceToAxle_m + (fitted.tool?.ahead_m ?? 0)
    const tips_m = face_m + (chassis.fork_m ?? 0)
    const turned =
      part.kind === 'turn' &&
      tailSwing({
        wheelbase_m: chassis.wheelbase_m,
        steer_deg: chassis.steer_deg,
        halfWidth_m: chassis.width_m / 2,
        tailOverhang_m: chassis.tailOverhang_m,
        load: { faceAhead_m: face_m, length_m: load?.length_m ?? chassis.fork_m ?? 0, width_m: load?.width_m ?? chassis.width_m },
        clearance_m: 0,
      }).aisle_m
    return [
      ...(turned === false
        ? [gap(ctx, piece, 'width', part.width_m - wide_m, 2 * sideGap_m)]
        : [gap(ctx, piece, 'aisle', part.width_m - turned, 2 * sideGap_m)]),
      ...(part.height_m === null ? [] : [gap(ctx, piece, 'height', part.height_m - high_m, headGap_m)]),
      ...slope(ctx, piece),
      // Tips go first into a rise: on the way forwards, and only where the floor turns up.
      ...(rise > 0 && drive.facing === 'load-first' ? [gap(ctx, piece, 'tips', drive.height_m - rise * tips_m, tipAir_m)] : []),
    ]
  })
  return [...each, ...besideWay(ctx, wide_m / 2)]
}

/** What stands beside a way that is drawn over the place, or in it: the nearest. */
function besideWay({ drive, plan, near_share }: TruckContext, half_m: number): Finding[] {
  if (!drive?.route) return []
  const [nearest] = besideRoute(plan.place, drive.route).sort((a, b) => a.gap_m - b.gap_m)
  const base = { check: 'way', subject: 'beside' } as const
  if (!nearest) return []
  const detail = { label: nearest.feature.label, x_m: nearest.at[0], y_m: nearest.at[1] }
  if (nearest.gap_m === 0) return [found({ ...base, verdict: 'outside', reason: 'through', detail })]
  const [measured, limit] = [nearest.gap_m - half_m, plan.policy.trucks.sideGap_m]
  if (measured <= 0) return [found({ ...base, verdict: 'outside', reason: 'touches', detail })]
  const utilisation = shareOf(limit, measured)
  const figures = { quantity: 'length', measured, nominal: measured, limit, utilisation } as const
  return [found({ ...base, verdict: byUse(utilisation, near_share), reason: 'beside', ...figures, detail })]
}

/** Places where people walk that a drawn way comes over with what drives there; closed meanwhile, they may be crossed. */
export function truckPeople({ drive, plan, truck }: TruckContext): Finding[] {
  if (!drive?.route) return []
  const half_m = Math.max(truck.chassis.width_m, (drive.laden && plan.lift.hung.load.size?.width_m) || 0) / 2
  const areas = peopleBeside(plan.place, drive.route)
  if (areas.length === 0) return [found({ check: 'people', verdict: 'inside', reason: 'none-drawn', detail: {} })]
  return areas.map(({ feature: { id: subject, label }, gap_m }) => {
    const base = { check: 'people', subject } as const
    const measured = gap_m - half_m
    if (measured > 0)
      return found({
        ...base,
        verdict: 'inside',
        reason: 'past',
        quantity: 'length',
        measured,
        nominal: measured,
        detail: { label },
      })
    if (plan.lift.closes?.includes(subject)) return found({ ...base, verdict: 'inside', reason: 'closed', detail: { label } })
    return found({ ...base, verdict: 'outside', reason: 'across', detail: { label } })
  })
}

/** The steered axle keeps its share of the weight while it drives. */
export function truckSteering(ctx: TruckContext): Finding[] {
  const { drive, truck, near_share, plan } = ctx
  const { steerLeast } = plan.policy.trucks
  const [pose] = ctx.poses
  if (!drive || !pose) return []
  const cases = ctx.loads.map((load) => {
    const b = ctx.balance(load, pose)
    const limit = load === null ? steerLeast.empty : steerLeast.laden
    const share = axlesOf(truck, { ...b, x_m: b.xFront_m }).rear_kg / b.total_kg
    return { share, limit, use: shareOf(limit, share) ?? Infinity }
  })
  if (cases.length === 0) return []
  const worst = cases.reduce((a, b) => (b.use > a.use ? b : a))
  const utilisation = shareOf(worst.limit, worst.share)
  const figures = { quantity: 'share', measured: worst.share, nominal: worst.share, limit: worst.limit, utilisation } as const
  return [
    found({
      check: 'axle',
      subject: 'steered',
      verdict: byUse(utilisation, near_share),
      reason: 'steered',
      ...figures,
      detail: {},
    }),
  ]
}
