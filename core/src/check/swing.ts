import { found } from '../finding/finding'
import { heightsOf } from '../parts/stability/slew'
import { g_mps2, normalDegrees, rad } from '../physics'
import { low } from '../quantity/measured'
import { boundary } from '../search'
import { fastestSlew_deg_s, swingPeriod_s } from '../swing/swing'
import type { Check } from './check'
import { ratedAtRadius } from './choose-table'
import type { LiftContext } from './context'

/** Slower than this nobody can turn a crane evenly, degrees a second. */
const crawl_deg_s = 0.5

/** How far beyond the greatest radius the table still rates everything that is lifted, metres. */
function room_m({ choice, hook, path, stretch }: LiftContext, rule?: 'linear'): number {
  if (choice.by !== 'table' || !hook) return 0
  const used_kg = hook.load_kg + hook.deductions.reduce((s, d) => s + d.mass_kg, 0)
  const holds = (radius_m: number) => {
    const { gross_kg } = ratedAtRadius(choice.chosen, radius_m, stretch, rule ?? choice.rule)
    return gross_kg !== 'not-rated' && gross_kg >= used_kg
  }
  const furthest_m = stretch.boom.furthest_m(stretch.boom_m, stretch.deflection_m)
  const { greatest_m } = path
  return holds(greatest_m) ? boundary(holds, greatest_m, Math.max(greatest_m, furthest_m), 1e-3) - greatest_m : 0
}

/**
 * How fast the load may be turned before it stands out further than the table rates it (from a quiet start; tan φ = ω²(r + L·sin φ)/g),
 * and how long a quiet start takes: one swing of this rope, to the ground. Never outside: who turns slower swings less.
 */
export const swingCheck: Check<'swing'> = {
  id: 'swing',
  since: 1,
  run: (ctx) => {
    const { step, path, boom, deflection_m, hook } = ctx
    if (ctx.reached || !hook || ctx.choice.by !== 'table') return []
    const { from_deg, to_deg } = path.arc
    const at = { radius_m: path.greatest_m, slew_deg: normalDegrees(to_deg) }
    if (from_deg === to_deg) return [found({ check: 'swing', verdict: 'inside', reason: 'no-slew', at, detail: {} })]
    const heights = heightsOf(step)
    const least_m = heights ? Math.min(heights.pickUp_m, heights.setDown_m) : 0
    const rope_m = boom.poseAtRadius(step.boom_m, low(path.least_m), deflection_m).tip_height_m - least_m
    const rateFor = (out_m: number) => {
      const tilt = Math.asin(out_m / rope_m)
      return Math.min(fastestSlew_deg_s, Math.sqrt((g_mps2 * Math.tan(tilt)) / (path.greatest_m + out_m)) / rad)
    }
    const out_m = Math.min(room_m(ctx), 0.9 * rope_m)
    const rate_deg_s = rateFor(out_m)
    // A load that stands right on a row has no room by the next lower one, however little it swings; by the straight line between them it may have.
    const crawls = rate_deg_s < crawl_deg_s
    const near = crawls && rateFor(Math.min(room_m(ctx, 'linear'), 0.9 * rope_m)) < crawl_deg_s
    const detail = { rate_deg_s, quiet_s: swingPeriod_s(rope_m), out_m }
    return [
      found({
        check: 'swing',
        verdict: near ? 'near' : 'inside',
        reason: crawls ? 'no-room' : 'rate',
        at,
        detail,
      }),
    ]
  },
  heldBackBy: ['mass', 'boom-limits', 'table', 'rating'],
  impliedBy: [],
  remedies: [],
}
