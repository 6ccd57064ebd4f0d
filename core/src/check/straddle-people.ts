import { byUse, type Finding, found, shareOf } from '../finding/finding'
import { sizeOf } from '../lift/plan'
import { g_mps2 } from '../physics'
import { awayFrom, type Ranges } from '../plane/ranges'
import { high, low } from '../quantity/measured'
import { body_m, type Stand, whoAt } from './crew-stands'
import type { StraddleContext } from './straddle-context'

/** What hangs between the beams, its sides square to the frame: x ahead, y to the left, z up. */
interface Hull extends Ranges {
  z: Ranges['x']
}

/** As high as whoever is looked for shows over what stands before them, metres. */
const head_m = 1.7

/**
 * All the room that a hull may take in a step: nobody measures where its own middle is, so it may reach as far forward and aft as it can with
 * both slings under it; as low and as high as it is moved, and by as much as it swings as the frame brakes. Null: its size is not entered.
 */
function hullIn({ plan, standing, hoists, step, keel_m, drive }: StraddleContext): Hull | null {
  const { load } = plan.lift.hung
  const size = sizeOf(load)
  if (!size || !load.cg) return null
  const { x_m, y_m } = load.cg
  const { length_m, width_m, height_m } = size
  const slings = [...standing.hoists.map((h) => h.x_m), x_m]
  const { straddle } = hoists
  const swing_m = drive ? straddle.beams.height_m * (straddle.braking_mps2 / g_mps2) : 0
  const lowest_m = step.do === 'hoist' ? Math.min(low(step.from_m), low(step.to_m)) : keel_m
  return {
    x: [Math.max(...slings.map(low)) - length_m - swing_m, Math.min(...slings.map(high)) + length_m + swing_m],
    y: [low(y_m) - width_m / 2, high(y_m) + width_m / 2],
    z: [lowest_m, keel_m + height_m],
  }
}

/** How far somebody is from where a wheel rolls, turns and all; standing still it rolls nowhere. */
function wheelGap_m({ hoists: { straddle }, drive }: StraddleContext, { y_m }: Stand): number {
  if (!drive) return Number.POSITIVE_INFINITY
  const { wheels, tyreWidth_m } = straddle
  const xs = wheels.map((w) => w.x_m)
  const base_m = Math.max(...xs) - Math.min(...xs)
  const tightest_m = Math.min(...drive.way.map((p) => p.radius_m ?? Number.POSITIVE_INFINITY))
  const cutsIn_m = base_m ** 2 / (2 * tightest_m)
  return Math.min(...wheels.map((w) => Math.max(0, Math.abs(y_m - w.y_m) - tyreWidth_m / 2 - cutsIn_m)))
}

/** Whether a line from one place to another goes through what hangs. */
function isHidden(hull: Hull, from: readonly number[], to: readonly number[]): boolean {
  let [enters, leaves] = [0, 1]
  for (const [i, [least, most]] of [hull.x, hull.y, hull.z].entries()) {
    const [a, b] = [from[i] ?? 0, to[i] ?? 0]
    if (a === b && (a < least || a > most)) return false
    if (a === b) continue
    const at = [(least - a) / (b - a), (most - a) / (b - a)]
    enters = Math.max(enters, Math.min(...at))
    leaves = Math.min(leaves, Math.max(...at))
  }
  return enters < leaves
}

/** Where somebody stands by a frame with a load in its slings, and walks along with it: clear of the load, out of the way of its wheels, in sight of its cab. */
function standing(ctx: StraddleContext, at: Stand, i: number): Finding {
  const { x_m, y_m } = at
  const on = whoAt(at, i)
  const hull = hullIn(ctx)
  if (!hull) return found({ ...on, verdict: 'not-proven', reason: 'stands-unsized' })
  const load_m = awayFrom(hull, [x_m, y_m])
  const wheel_m = wheelGap_m(ctx, at)
  const gap_m = Math.min(load_m, wheel_m)
  const use = shareOf(body_m, gap_m)
  const figures = { quantity: 'length', measured: gap_m, nominal: gap_m, limit: body_m, utilisation: use } as const
  const verdict = byUse(use, ctx.near_share)
  if (verdict === 'outside')
    return found({ ...on, ...figures, verdict, reason: load_m <= wheel_m ? 'stands-under' : 'stands-by-wheel' })
  const { eye } = ctx.hoists.straddle
  const hears = ctx.plan.lift.crew?.told === 'radio'
  if (!hears && isHidden(hull, [eye.x_m, eye.y_m, eye.z_m], [x_m, y_m, head_m]))
    return found({ ...on, verdict: 'outside', reason: 'stands-unseen' })
  return found({ ...on, ...figures, verdict, reason: 'stands-clear' })
}

export const straddlePeople = (ctx: StraddleContext): Finding[] =>
  ctx.step.laden ? (ctx.plan.lift.crew?.stands ?? []).map((s, i) => standing(ctx, s, i)) : []
