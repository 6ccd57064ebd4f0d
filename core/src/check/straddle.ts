import { byUse, type Finding, found, shareOf } from '../finding/finding'
import { lineLimit_kg } from '../parts/hoists/rope'
import type { WayPart } from '../parts/truck-steps'
import { g_mps2 } from '../physics'
import { high, low } from '../quantity/measured'
import { fallOf, leastShare } from './gantry'
import { type AxleOn, onFloor } from './on-floor'
import type { Standing, StraddleContext } from './straddle-context'

const tableOf = ({ plan, machine }: StraddleContext) =>
  plan.tables.find((t) => t.machine === machine.id && t.axes.row.quantity === 'hoist')

/** A table goes with it. */
export const straddleTable = (ctx: StraddleContext): Finding[] =>
  tableOf(ctx) ? [] : [found({ check: 'table', verdict: 'not-proven', reason: 'no-table', detail: {} })]

/** Each hoist against its mark, and both against what the frame is marked with. */
export function straddleRating(ctx: StraddleContext): Finding[] {
  const { hung, shares, near_share } = ctx
  const rows = tableOf(ctx)?.configurations[0]?.rows
  if (!rows || !hung) return []
  if (!shares)
    return [
      found({ check: 'rating', verdict: 'not-proven', reason: 'not-measured', detail: { what: 'the load’s centre of gravity' } }),
    ]
  const marked = (id: string) => rows.find((r) => r.at === id)?.ratings_kg[0] ?? null
  const all = [...shares, { id: 'together', label: 'Both hoists', most: 1, nominal: 1 }]
  return all.map(({ id: subject, label, most, nominal }) => {
    const limit = marked(subject)
    if (limit === null) return found({ check: 'rating', subject, verdict: 'not-proven', reason: 'no-mark-on', detail: { label } })
    const measured = most * hung.worst_kg
    const utilisation = shareOf(measured, limit)
    const figures = { quantity: 'mass', measured, nominal: nominal * hung.nominal_kg, limit, utilisation } as const
    return found({
      check: 'rating',
      subject,
      verdict: byUse(utilisation, near_share),
      reason: 'hoist',
      ...figures,
      detail: { label },
    })
  })
}

/** No sling goes slack. */
export function straddleShare({ step, hung, shares }: StraddleContext): Finding[] {
  if (!hung || !shares) return []
  if (!step.laden) return [found({ check: 'share', verdict: 'inside', reason: 'nothing-on', detail: {} })]
  const least = shares.reduce((a, b) => (b.least < a.least ? b : a))
  return [leastShare(least.label, least.least)]
}

/** Each hoist by its line. */
export function straddleLines({ hung, shares, hoists, near_share }: StraddleContext): Finding[] {
  if (!hung || !shares) return []
  return shares.flatMap(({ id: subject, most, nominal }) => {
    const hoist = hoists.each.find((h) => h.id === subject)
    if (!hoist) return []
    const { leadSheaves, sheaveEfficiency } = hoists
    const limit = lineLimit_kg({ ...hoist, leadSheaves, sheaveEfficiency })
    const measured = most * hung.worst_kg
    const utilisation = shareOf(measured, limit)
    const figures = { quantity: 'mass', measured, nominal: nominal * hung.nominal_kg, limit, utilisation } as const
    const verdict = byUse(utilisation, near_share)
    return [
      found({ check: 'hoist-rope', subject, verdict, reason: 'capacity', ...figures, detail: { partsOfLine: hoist.parts } }),
    ]
  })
}

/** Both hoists move a load together only where the panel shows them aligned. */
export function straddleMotion({ step, standing }: StraddleContext): Finding[] {
  const together = step.laden && step.do === 'hoist' && step.which === 'all'
  if (!together) return [found({ check: 'motion', verdict: 'inside', reason: 'one-at-a-time', detail: {} })]
  const { synchronised } = standing
  if (synchronised === null) return [found({ check: 'motion', verdict: 'not-proven', reason: 'sync-unread', detail: {} })]
  const verdict = synchronised === 'aligned' ? 'inside' : 'outside'
  const reason = synchronised === 'aligned' ? 'aligned' : 'not-aligned'
  return [found({ check: 'motion', verdict, reason, detail: {} })]
}

/** What each leg of the slings under the keel is pulled with. */
export function straddleSlings({ step, hung, shares, plan, hoists, near_share }: StraddleContext): Finding[] {
  if (!hung || !shares || !step.laden) return []
  const { belly, load } = plan.lift.hung
  const base = { check: 'structure', subject: 'slings' } as const
  if (!belly) return [found({ ...base, verdict: 'not-proven', reason: 'no-hull', detail: {} })]
  const { halfBreadth_m, rise_m, wll_kg } = belly
  if (halfBreadth_m === null || rise_m === null) return [found({ ...base, verdict: 'not-proven', reason: 'no-hull', detail: {} })]
  const { apart_m } = hoists.straddle.beams
  const y_m = load.cg ? Math.max(Math.abs(low(load.cg.y_m)), Math.abs(high(load.cg.y_m))) : 0
  const most = shares.reduce((a, b) => (b.most > a.most ? b : a))
  // The side it hangs nearer to carries more, the other pulls flatter: each by itself.
  const sides = [y_m, -y_m].flatMap((y) =>
    [low(halfBreadth_m), high(halfBreadth_m)].map((half) => {
      const out_m = apart_m / 2 - y - half
      const angle = Math.atan2(Math.abs(out_m), low(rise_m))
      const tension_N = (most.most * hung.worst_kg * g_mps2 * (0.5 + y / apart_m)) / Math.cos(angle)
      return { tension_N, angle_deg: (angle * 180) / Math.PI }
    }),
  )
  const { tension_N: measured, angle_deg } = sides.reduce((a, b) => (b.tension_N > a.tension_N ? b : a))
  const detail = { legs: 2, angle_deg }
  if (wll_kg === null) return [found({ ...base, verdict: 'not-proven', reason: 'no-mark', detail })]
  const limit = wll_kg * g_mps2
  const utilisation = shareOf(measured, limit)
  const figures = { quantity: 'force', measured, nominal: measured, limit, utilisation } as const
  return [found({ ...base, verdict: byUse(utilisation, near_share), reason: 'sling', ...figures, detail })]
}

const allMoments = (ctx: StraddleContext): Standing[] => ctx.moments.flatMap((m) => m.all)

/** Each tyre over all of the step. */
export function straddleWheels(ctx: StraddleContext): Finding[] {
  const carried = ctx.wheels_N(allMoments(ctx))
  if (!carried || !ctx.hung || !ctx.shares) return []
  const limit = ctx.hoists.straddle.tyre_N
  return carried.map(({ id: subject, label, most_N: measured }) => {
    const utilisation = shareOf(measured, limit)
    const figures = { quantity: 'force', measured, nominal: measured, limit, utilisation } as const
    const verdict = byUse(utilisation, ctx.near_share)
    return found({ check: 'wheel', subject, verdict, reason: 'rating', ...figures, detail: { label, empty: false } })
  })
}

/** Two wheels of an end as an axle, each wheel with its factor, on every floor that it stands or drives on. */
export function straddleFloor(ctx: StraddleContext): Finding[] {
  const { hung, shares, hoists, standing, near_share } = ctx
  if (!hung || !shares) return []
  const { wheels, floorFactor, own_kg } = hoists.straddle
  const worst = new Map<string, Finding>()
  for (const { part, all } of ctx.moments) {
    const floor = part ? part.floor : standing.ground
    const carried = ctx.wheels_N(all)
    if (!carried) return []
    const ends = [
      { id: 'front', label: 'front wheels', own: carried.filter((w) => (wheels.find((x) => x.id === w.id)?.x_m ?? 0) > 0) },
      { id: 'rear', label: 'rear wheels', own: carried.filter((w) => (wheels.find((x) => x.id === w.id)?.x_m ?? 0) < 0) },
    ]
    const each = ends.map(({ id, label, own }): AxleOn => {
      const wheel_N = Math.max(...own.map((w) => w.most_N)) * floorFactor
      return { id, label, axle_N: own.reduce((s, w) => s + w.most_N, 0), wheel_N }
    })
    for (const f of onFloor(floor, each, (own_kg + hung.worst_kg) * g_mps2, near_share, floor?.id)) {
      const other = worst.get(f.id)
      if (!other || (f.utilisation ?? Infinity) > (other.utilisation ?? Infinity)) worst.set(f.id, f)
    }
  }
  return [...worst.values()]
}

/** How near it comes to tipping over the wheels of a side or an end: what slope, wind and braking take of the room that is left on the level. */
function roomLeft(ctx: StraddleContext, moments: readonly Standing[]): { edge: 'front' | 'side'; m0: number; m: number }[] {
  const { wheels } = ctx.hoists.straddle
  const [long, wide] = [Math.min(...wheels.map((w) => Math.abs(w.x_m))), Math.min(...wheels.map((w) => Math.abs(w.y_m)))]
  return moments.flatMap((m) => {
    const still = ctx.resting({ along: 0, cross: 0, braking_mps2: 0, wind_N: 0 })
    return ctx.resting(m).flatMap((r, i) => {
      const level = still[i] ?? r
      return [
        { edge: 'front' as const, m0: long - Math.abs(level.x_m), m: long - Math.abs(r.x_m) },
        { edge: 'side' as const, m0: wide - Math.abs(level.y_m), m: wide - Math.abs(r.y_m) },
      ]
    })
  })
}
const useOf = ({ m0, m }: { m0: number; m: number }, share: number) => (m0 <= 0 ? null : Math.max(0, m0 - m) / m0 / share)
const fullest = <T extends { use: number | null }>(all: readonly T[]): T | undefined =>
  [...all].sort((a, b) => (b.use ?? Infinity) - (a.use ?? Infinity))[0]

/** Standing: wind from the side and the fall of the ground. */
export function straddleOverturning(ctx: StraddleContext): Finding[] {
  if (ctx.drive || !ctx.hung || !ctx.shares) return []
  const share = ctx.plan.policy.trucks.stabilityShare
  const worst = fullest(roomLeft(ctx, allMoments(ctx)).map((r) => ({ ...r, use: useOf(r, share) })))
  if (!worst) return []
  const { edge, m: measured, m0: limit, use: utilisation } = worst
  const figures = { quantity: 'length', measured, nominal: measured, limit, utilisation } as const
  return [
    found({ check: 'overturning', verdict: byUse(utilisation, ctx.near_share), reason: 'frame', ...figures, detail: { edge } }),
  ]
}

const nameOf = (part: WayPart, i: number) => part.label || `${part.kind.charAt(0).toUpperCase()}${part.kind.slice(1)} ${i + 1}`

/** The same on each piece of its way, with braking and turning. */
export function straddleTravel(ctx: StraddleContext): Finding[] {
  const { drive, plan, hung, shares } = ctx
  if (!drive || !hung || !shares) return []
  const { stabilityShare } = plan.policy.trucks
  return ctx.moments.flatMap(({ part, i, all }): Finding[] => {
    if (!part) return []
    const base = { check: 'travel', subject: `${i}` } as const
    const piece = nameOf(part, i)
    if (part.radius_m !== undefined && drive.speed_mps === null)
      return [found({ ...base, verdict: 'not-proven', reason: 'no-speed', quantity: 'speed', detail: { piece } })]
    const worst = fullest(roomLeft(ctx, all).map((r) => ({ ...r, use: useOf(r, stabilityShare) })))
    if (!worst) return []
    const { edge, m: measured, m0: limit, use: utilisation } = worst
    const figures = { quantity: 'length', measured, nominal: measured, limit, utilisation } as const
    const detail = { piece, edge, permitted_mps: null }
    return [found({ ...base, verdict: byUse(utilisation, ctx.near_share), reason: 'margin', ...figures, detail })]
  })
}

/** Width, height and slope of each piece. */
export function straddleWay(ctx: StraddleContext): Finding[] {
  const { drive, plan, hoists, near_share } = ctx
  if (!drive) return []
  const { straddle } = hoists
  const { sideGap_m, headGap_m } = plan.policy.trucks
  return drive.way.flatMap((part, i): Finding[] => {
    const piece = nameOf(part, i)
    if (part.width_m === null)
      return [found({ check: 'way', subject: `${i}`, verdict: 'not-proven', reason: 'no-width', detail: { piece } })]
    const gap = (what: 'width' | 'height', left_m: number, needed_m: number) => {
      const utilisation = shareOf(needed_m, left_m)
      const figures = { quantity: 'length', measured: left_m, nominal: left_m, limit: needed_m, utilisation } as const
      const verdict = byUse(utilisation, near_share)
      return found({ check: 'way', subject: `${i}-${what}`, verdict, reason: 'gap', ...figures, detail: { piece, what } })
    }
    const slope = (what: 'grade' | 'cross-fall', is: number, most: number) => {
      const utilisation = shareOf(is, most)
      const figures = { quantity: 'share', measured: is / 100, nominal: is / 100, limit: most / 100, utilisation } as const
      const verdict = byUse(utilisation, near_share)
      return found({ check: 'way', subject: `${i}-${what}`, verdict, reason: 'slope', ...figures, detail: { piece, what } })
    }
    return [
      gap('width', part.width_m - straddle.width_m, 2 * sideGap_m),
      ...(part.height_m === null ? [] : [gap('height', part.height_m - straddle.height_m, headGap_m)]),
      slope('grade', Math.abs(part.grade_pct), straddle.grades.along_pct),
      slope('cross-fall', Math.abs(part.cross_pct), straddle.grades.cross_pct),
    ]
  })
}

/** The ground that it stands on while it lifts. */
export function straddleLevel({ drive, falls, hoists }: StraddleContext): Finding[] {
  if (drive) return []
  if (!falls) return [found({ check: 'level', verdict: 'not-proven', reason: 'fall-unread', detail: {} })]
  const steepest = (all: readonly number[]) => Math.max(...all.map(Math.abs))
  const { along_pct, cross_pct } = hoists.straddle.grades
  return fallOf({ along: steepest(falls.along), cross: steepest(falls.cross) }, Math.min(along_pct, cross_pct))
}
