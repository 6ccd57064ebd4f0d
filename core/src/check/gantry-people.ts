import { byUse, type Finding, found, shareOf } from '../finding/finding'
import { type LiftPlan, sizeOf } from '../lift/plan'
import type { GantryPart } from '../parts/gantry'
import type { OnTowers } from '../parts/supports/towers'
import { awayFrom, type Ranges } from '../plane/ranges'
import { high, low, type Tol } from '../quantity/measured'
import { type Stand, whoAt } from './crew-stands'
import type { GantryContext } from './gantry-context'

type Load = LiftPlan['hung']['load']

const ends = (of: readonly Tol[], more_m: number): readonly [number, number] => [
  Math.min(...of.map(low)) - more_m,
  Math.max(...of.map(high)) + more_m,
]

/**
 * All the room in plan that towers, headers and load may take, from the middle of its towers: their footings wherever they may stand, and the load
 * as far out on each side of its centre as it is long and wide, since nobody measures where its own middle is. Null: its size is not entered.
 */
export function gantryRoom(
  { stand: { footing } }: GantryPart,
  { towers }: Pick<OnTowers, 'towers'>,
  load: Load,
  shifts: readonly number[],
): Ranges | null {
  const size = sizeOf(load)
  if (!size) return null
  const [xs, ys] = [towers.map((t) => t.x_m), towers.map((t) => t.y_m)]
  const [[rear, front], [right, left]] = [ends(xs, footing.length_m / 2), ends(ys, footing.width_m / 2)]
  const { cg } = load
  const [x, y] = cg ? [[cg.x_m], [cg.y_m]] : [xs, ys]
  const [[back, ahead], [least, most]] = [ends(x, size.length_m), ends(y, size.width_m)]
  return {
    x: [Math.min(rear, back), Math.max(front, ahead)],
    y: [Math.min(right, least + Math.min(...shifts)), Math.max(left, most + Math.max(...shifts))],
  }
}

/** Where somebody stands by a load between towers, and walks along with it: outside the barriers round all of it. */
function standing(ctx: GantryContext, at: Stand, i: number): Finding {
  const on = whoAt(at, i)
  const room = gantryRoom(ctx.gantry, ctx.standing, ctx.plan.lift.hung.load, ctx.shifts)
  if (!room) return found({ ...on, verdict: 'not-proven', reason: 'stands-unsized' })
  const gap_m = awayFrom(room, [at.x_m, at.y_m])
  const { barriers_m } = ctx.gantry.stand
  const use = shareOf(barriers_m, gap_m)
  const figures = { quantity: 'length', measured: gap_m, nominal: gap_m, limit: barriers_m, utilisation: use } as const
  const verdict = byUse(use, 1)
  return found({
    ...on,
    ...figures,
    verdict,
    reason: verdict === 'outside' ? 'stands-inside-barriers' : 'stands-outside-barriers',
  })
}

export const gantryPeople = (ctx: GantryContext): Finding[] =>
  ctx.step.laden ? (ctx.plan.lift.crew?.stands ?? []).map((s, i) => standing(ctx, s, i)) : []
