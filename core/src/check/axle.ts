import { outwardShift_m } from '../parts/stability/stability'
import type { Axle } from '../parts/supports/wheels'
import { g_mps2, normalDegrees, rad } from '../physics'
import { UNREACHABLE } from './area'
import { axlePlate } from './axle-plate'
import type { Check } from './check'
import type { LiftContext } from './context'
import { tiltOf } from './tilt'
import { towAxles } from './towing'
import { truckAxle } from './truck-stands'
import { truckSteering } from './truck-travels'
import { wheelsIn } from './wheels-in-area'

/** The most that one axle carries over a step, newtons, where, and whether that is with the hook empty. */
export interface AxleUse {
  axle: Axle
  load_N: number
  at: { radius_m: number; slew_deg: number }
  empty: boolean
}

/** Cosine of the slew at which a thing ahead of the slew centre is furthest ahead on an arc, and furthest behind. */
function extremes({ from_deg, to_deg }: { from_deg: number; to_deg: number }): number[] {
  const [a, b] = [Math.min(from_deg, to_deg), Math.max(from_deg, to_deg)]
  const turning: number[] = []
  for (let k = Math.ceil(a / 180); k * 180 <= b; k++) turning.push(k * 180)
  return [a, b, ...turning]
}

/**
 * Front and rear by moments, standing: exact, whatever the springs do. Loaded and with the hook empty, over every slew of the step.
 * None while the mass is unknown or the boom does not get there.
 */
export function axleUses(ctx: LiftContext): AxleUse[] {
  const { machine, hook, stands, path, plan } = ctx
  if (!machine.wheels || !hook) return []
  const [a, b] = machine.wheels.axles
  if (!a || !b) return []
  const tilt_deg = tiltOf(plan.setup)?.worst_deg ?? 0
  const cases = stands.flatMap(({ radius_m, posed }) => {
    const { fixed, slewing, pose } = posed
    const hook_m = radius_m + outwardShift_m(pose.tip_height_m, hook.total_kg, { tilt_deg, wind_N: ctx.wind_N })
    return [false, true].flatMap((empty) =>
      extremes(path.arc).map((slew_deg) => {
        const hung_N = empty ? 0 : hook.total_kg * g_mps2
        const force_N = fixed.force_N + slewing.force_N + hung_N
        const c = Math.cos(slew_deg * rad)
        const s = Math.sin(slew_deg * rad)
        const along_Nm = fixed.wx_Nm + slewing.along_Nm * c - slewing.across_Nm * s + hung_N * hook_m * c
        return { empty, force_N, x_m: along_Nm / force_N, at: { radius_m, slew_deg: normalDegrees(slew_deg) } }
      }),
    )
  })
  const carries = (axle: Axle, other: Axle, { force_N, x_m }: (typeof cases)[number]) =>
    (force_N * (x_m - other.x_m)) / (axle.x_m - other.x_m)
  return [
    [a, b],
    [b, a],
  ].flatMap(([axle, other]) => {
    if (!axle || !other || cases.length === 0) return []
    const all = cases.map((k) => ({ axle, load_N: carries(axle, other, k), at: k.at, empty: k.empty }))
    return [all.reduce((x, y) => (y.load_N > x.load_N ? y : x))]
  })
}

/** What each axle carries against its plate, loaded and with the hook empty. */
export const axleCheck: Check<'axle'> = {
  id: 'axle',
  since: 1,
  run: (ctx) =>
    ctx.support.on !== 'wheels'
      ? []
      : axleUses(ctx).map(({ axle: { id, label, rating_kg }, load_N, at, empty }) =>
          axlePlate({ id, label, measured_kg: load_N / g_mps2, rating_kg, empty, at }, ctx.near_share),
        ),
  field: (area) => {
    const carried = wheelsIn(area)
    if (!carried) return []
    return carried.axles.map((axle, k) => ({
      id: `axle:${axle.id}`,
      weighs: true,
      useAt: (cell) => {
        const on = carried.at(cell)
        return on === null ? UNREACHABLE : Math.max(0, on.axle_N[k] ?? 0) / g_mps2 / axle.rating_kg
      },
    }))
  },
  truck: (ctx) => [...truckAxle(ctx), ...truckSteering(ctx)],
  tow: towAxles,
  heldBackBy: ['mass', 'boom-limits', 'overturning'],
  impliedBy: [],
  remedies: ['support', 'radius', 'load-centre', 'mass', 'split', 'arm', 'lifted'],
}
