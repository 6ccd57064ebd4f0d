import { byUse, type Finding, found, shareOf } from '../finding/finding'
import { groundPressure } from '../ground/ground-pressure'
import { g_mps2, rad } from '../physics'
import { high, low, type Tol } from '../quantity/measured'
import { axlesOf, type Balance, type MastPose, marginsOf, type OnForks } from '../truck/balance'
import { axlePlate } from './axle-plate'
import { type AxleOn, hasPlate, onFloor } from './on-floor'
import { tiltOf } from './tilt'
import type { TruckContext } from './truck-context'

/** Slopes of the tilting platform, along (under and from 5 t rated) and across (ISO 22915-2). */
const platform = { light: 0.04, heavy: 0.035, across: 0.06, heavy_kg: 5000 } as const

const steepest = (t: Tol | null) => (t === null ? 0 : Math.tan(Math.max(Math.abs(low(t)), Math.abs(high(t))) * rad))

interface Posed {
  load: OnForks | null
  pose: MastPose
  b: Balance
}

/** Every load at every corner of its doubt in every pose. */
const posedIn = (ctx: TruckContext): Posed[] =>
  ctx.poses.flatMap((pose) => ctx.loads.map((load) => ({ load, pose, b: ctx.balance(load, pose) })))

/** What would tip it forwards, with the maker's own share of that. */
function forwardTipping(ctx: TruckContext, all: readonly Posed[]): Finding[] {
  const { truck, fitted, near_share } = ctx
  const cases = all.flatMap(({ load, pose }) => {
    if (!load || load.mass_kg <= 0) return []
    const out_m = ctx.outTo_m(load, pose)
    const empty = ctx.balance(null, pose, load.x_m)
    const lean_m = Math.sin(Math.max(0, pose.tilt_deg) * rad) * pose.height_m
    const edge_m = truck.edgeAhead_m ?? 0
    const ahead_m = pose.reach_m === undefined ? (fitted.tool?.ahead_m ?? 0) : 0
    const arm_m = truck.faceToAxle_m + ahead_m + out_m + truck.give_share * pose.height_m + lean_m - edge_m
    if (arm_m <= 0) return []
    const tipping_kg = Math.max(0, (empty.total_kg * (edge_m - empty.xFront_m)) / arm_m)
    return [
      { load, tipping_kg, limit: truck.share * tipping_kg, use: shareOf(load.mass_kg, truck.share * tipping_kg) ?? Infinity },
    ]
  })
  if (cases.length === 0) return []
  const worst = cases.reduce((a, b) => (b.use > a.use ? b : a))
  const utilisation = shareOf(worst.load.mass_kg, worst.limit)
  return [
    found({
      check: 'overturning',
      verdict: byUse(utilisation, near_share),
      reason: 'forward',
      quantity: 'mass',
      measured: worst.load.mass_kg,
      nominal: worst.load.mass_kg,
      limit: worst.limit,
      utilisation,
      detail: { tipping_kg: worst.tipping_kg },
    }),
  ]
}

/**
 * Room to the edges it stands on, level and with floor and platform slope: of a truck that passed the tilting platform what is left there
 * must stay more than nothing; of another no more than its share may go.
 */
function reserve(ctx: TruckContext, all: readonly Posed[]): Finding[] {
  const { truck, near_share, plan } = ctx
  const { pitch_deg, roll_deg } = plan.setup.level
  const { stabilityShare, raisedTilt_pct } = plan.policy.trucks
  const { typeTest } = truck.chassis
  const along = steepest(pitch_deg) + (typeTest ? alongOf(ctx) : raisedTilt_pct / 100)
  const across = steepest(roll_deg) + (typeTest ? platform.across : raisedTilt_pct / 100)
  const share = typeTest ? 1 : stabilityShare
  const cases = all.flatMap(({ b }) => {
    const [level, slope] = [marginsOf(truck, b), marginsOf(truck, b, along, across)]
    return (['front', 'side'] as const).map((edge) => {
      const [m0, m] = [level[`${edge}_m`], slope[`${edge}_m`]]
      return { edge, m0, m, use: m0 <= 0 ? Infinity : (m0 - m) / m0 / share }
    })
  })
  if (cases.length === 0) return []
  return (['front', 'side'] as const).map((edge) => {
    const own = cases.filter((c) => c.edge === edge)
    const worst = own.reduce((a, b) => (b.use > a.use ? b : a))
    const falls = worst.m0 <= 0
    return found({
      check: 'overturning',
      subject: edge,
      verdict: falls ? 'outside' : byUse(worst.use, near_share),
      reason: 'reserve',
      quantity: 'length',
      measured: worst.m,
      nominal: worst.m,
      limit: worst.m0,
      utilisation: falls ? null : worst.use,
      detail: { edge, along_pct: along * 100, across_pct: across * 100 },
    })
  })
}

/** From 5 t rated the platform is tilted less. */
function alongOf({ plan, machine }: TruckContext): number {
  const rated = plan.tables
    .filter((t) => t.machine === machine.id)
    .flatMap((t) => t.configurations.flatMap((c) => c.rows.flatMap((r) => r.ratings_kg.map((kg) => kg ?? 0))))
  return Math.max(0, ...rated) >= platform.heavy_kg ? platform.heavy : platform.light
}

export function truckOverturning(ctx: TruckContext): Finding[] {
  // On the way the travel check has slopes, braking and turns; here it stands and raises.
  if (ctx.drive) return []
  const all = posedIn(ctx)
  return all.length === 0 ? [] : [...forwardTipping(ctx, all), ...reserve(ctx, all)]
}

/** The most on front and rear axle over the step, loaded and empty. */
export function truckAxles(ctx: TruckContext): { axle: 'front' | 'rear'; load_kg: number; empty: boolean; total_kg: number }[] {
  const all = ctx.poses.flatMap((pose) =>
    ctx.loadsAndEmpty.map((load) => {
      const b = ctx.balance(load, pose)
      return { load, total_kg: b.total_kg, axles: axlesOf(ctx.truck, b) }
    }),
  )
  if (all.length === 0) return []
  const total_kg = Math.max(...all.map((x) => x.total_kg))
  return (['front', 'rear'] as const).map((axle) => {
    const worst = all.reduce((a, b) => (b.axles[`${axle}_kg`] > a.axles[`${axle}_kg`] ? b : a))
    return { axle, load_kg: worst.axles[`${axle}_kg`], empty: worst.load === null, total_kg }
  })
}

export const truckAxle = (ctx: TruckContext): Finding[] =>
  truckAxles(ctx).map(({ axle, load_kg, empty }) => {
    const feet = ctx.feetDown ? ctx.truck.stabilisers : undefined
    // With its feet down both of them carry what the front axle would, and the rear one stands still.
    const onFeet = axle === 'front' ? (2 * (feet?.capacity_N ?? 0)) / g_mps2 : (feet?.rear_kg ?? 0)
    const rating_kg = feet ? onFeet : ctx.truck.chassis.axles[`${axle}_kg`]
    const label = feet && axle === 'front' ? 'both feet' : `${axle} axle`
    return axlePlate({ id: axle, label, measured_kg: load_kg, rating_kg, empty }, ctx.near_share)
  })

/** What its feet press the ground with, the one nearer to the load the harder. */
export function truckFeet(ctx: TruckContext): Finding[] {
  const { truck, feetDown, plan, near_share } = ctx
  const { stabilisers } = truck
  const { standing } = plan.setup
  if (!feetDown || !stabilisers || standing.on !== 'wheels') return []
  const loads = posedIn(ctx).map(({ b }) => axlesOf(truck, b).front_kg * (0.5 + Math.abs(b.y_m) / (2 * stabilisers.half_m)))
  if (loads.length === 0) return []
  const { ground } = standing
  const reaction_N = Math.max(...loads) * plan.policy.dynamicFactor * g_mps2
  const pressed = groundPressure({ reaction_N, pad: stabilisers.float, allowable_kPa: ground?.allowable_kPa, soil: ground?.soil })
  const detail = { label: 'Foot', empty: false, ground: ground?.label ?? '', source: ground?.source ?? '' }
  const base = { check: 'ground', subject: 'foot', quantity: 'pressure', measured: pressed.formation_kPa } as const
  if (pressed.utilisation === null)
    return [found({ ...base, verdict: 'not-proven', reason: ground ? 'nothing-presumed' : 'unknown', detail })]
  const { utilisation, allowable_kPa: limit, presumed } = pressed
  const verdict = byUse(utilisation, near_share)
  return [found({ ...base, verdict, reason: presumed ? 'presumed' : 'allowable', limit, utilisation, detail })]
}

/** With its feet down it does not drive. */
export const truckMotion = ({ feetDown, drive }: TruckContext): Finding[] =>
  feetDown && drive
    ? [found({ check: 'motion', verdict: 'outside', reason: 'made-otherwise', detail: { label: 'with its stabilisers down' } })]
    : []

/**
 * The floor it stands on, and every floor of its way: a building's by axle and by wheel with its factor, a trailer's plate as it is. Both axles: with
 * little on the forks, or nothing, the rear one carries most.
 */
export function truckFloor(ctx: TruckContext): Finding[] {
  const { plan, truck, near_share, drive } = ctx
  const axles = truckAxles(ctx)
  if (axles.length === 0) return []
  const { frontWheels, rearWheels, floorFactor } = truck.chassis
  const { standing } = plan.setup
  const stands = standing.on === 'wheels' ? [{ floor: standing.ground, plate: false }] : []
  const floors = drive ? drive.way.map((p) => ({ floor: p.floor, plate: hasPlate(p) })) : stands
  const seen = new Set<string>()
  return floors.flatMap(({ floor, plate }): Finding[] => {
    const key = `${floor?.id ?? ''}${plate ? '-plate' : ''}`
    if (seen.has(key)) return []
    seen.add(key)
    const each = axles.map(({ axle, load_kg }): AxleOn => {
      const axle_N = load_kg * g_mps2
      const feet = ctx.feetDown && axle === 'front'
      const wheels = axle === 'front' ? frontWheels : rearWheels
      const wheel_N = feet ? axle_N / 2 : (axle_N / wheels) * (plate ? 1 : floorFactor)
      return { id: axle, label: `${axle} axle`, axle_N, wheel_N }
    })
    return onFloor(floor, each, Math.max(...axles.map((a) => a.total_kg)) * g_mps2, near_share, floor?.id)
  })
}

/** Slope of the floor that it stacks on. */
export function truckLevel(ctx: TruckContext): Finding[] {
  if (ctx.drive) return []
  const tilt = tiltOf(ctx.plan.setup)
  if (!tilt) return [found({ check: 'level', verdict: 'not-proven', reason: 'unread', detail: {} })]
  const limit = Math.atan(ctx.truck.chassis.stackSlope_pct / 100) / rad
  const utilisation = tilt.worst_deg / limit
  const verdict = tilt.worst_deg > limit + 1e-9 ? 'outside' : 'inside'
  const figures = { quantity: 'angle', measured: tilt.worst_deg, nominal: tilt.nominal_deg, limit, utilisation } as const
  return [found({ check: 'level', verdict, reason: 'stacking-floor', ...figures, detail: {} })]
}
