import type { Outline } from '../clearance/standing'
import { byUse, type Finding, found, shareOf } from '../finding/finding'
import type { Crew } from '../lift/plan'
import type { Crane } from '../machine/crane'
import { normalDegrees, rad } from '../physics'
import type { LiftContext } from './context'
import { type Moving, tailHalf_deg } from './swept'

export type Stand = NonNullable<Crew['stands']>[number]

/** Room that a body needs not to be crushed, metres; nearer than that nobody stands to what moves. */
export const body_m = 0.5

/** What goes round higher than this passes over whoever stands below it, metres: a tower's jib. */
const overhead_m = 2.5

/** Whether a tail goes round so low that it crushes whoever stands in its circle. */
export const tailIsLow = ({ upper: { tailAbove_m = 0 } }: Crane): boolean => tailAbove_m <= overhead_m

/** Who is spoken of: their number in the plan's list, what they do there, and where that is. */
export const whoAt = ({ x_m, y_m, role }: Stand, i: number) =>
  ({
    check: 'people',
    subject: `stand-${i + 1}`,
    at: { radius_m: Math.hypot(x_m, y_m), slew_deg: normalDegrees(Math.atan2(y_m, x_m) / rad) },
    detail: { role },
  }) as const

/** Where somebody stands, as something that is measured to. */
const personAt = (at: Stand): Outline => ({ points: [at, at], closed: false })

/** How far off the tail goes round, metres; inside of its circle nothing, where it comes round there. */
function tailGap_m({ machine, path }: LiftContext, { bodies }: Moving, at: Stand): number {
  if (!tailIsLow(machine)) return Number.POSITIVE_INFINITY
  const { from_deg, to_deg } = path.arc
  const [first, last] = [Math.min(from_deg, to_deg) + 180 - tailHalf_deg, Math.max(from_deg, to_deg) + 180 + tailHalf_deg]
  const past_deg = normalDegrees(Math.atan2(at.y_m, at.x_m) / rad - first)
  const inside = Math.hypot(at.x_m, at.y_m) <= machine.upper.tailSwingRadius_m
  return inside && past_deg <= last - first ? 0 : bodies.tailTo(personAt(at), from_deg, to_deg).least_m
}

/**
 * How far somebody is from the line of the rope, over the boom from its winch and on past the hook, wherever the load goes round; metres. Further off
 * than boom and rope are long it does not come.
 */
function lineGap_m({ path: { arc, greatest_m }, step: { boom_m } }: LiftContext, at: Stand): number {
  const r_m = Math.hypot(at.x_m, at.y_m)
  if (r_m > greatest_m + boom_m) return Number.POSITIVE_INFINITY
  const least_deg = Math.min(arc.from_deg, arc.to_deg)
  const turns_deg = Math.abs(arc.to_deg - arc.from_deg)
  // The line has two ends: past half a turn it has been everywhere.
  const past_deg = normalDegrees(Math.atan2(at.y_m, at.x_m) / rad - least_deg) % 180
  if (past_deg <= turns_deg) return 0
  return r_m * Math.sin(Math.min(past_deg - turns_deg, 180 - past_deg, 90) * rad)
}

/** How near somebody is to one of the things that may hurt them, and what is said of it. */
interface Near {
  gap_m: number
  limit: number
  outside: 'stands-under' | 'stands-by-tail' | 'stands-in-line'
  inside: 'stands-clear' | 'stands-off-line'
}

/** Where somebody stands while the load is up: clear of it with its swing, of what goes round behind, and of the line of a rope that may fly back. */
export function standing(ctx: LiftContext, moving: Moving, at: Stand, i: number): Finding {
  const { bodies } = moving
  const on = whoAt(at, i)
  const beyond_m = on.at.radius_m - moving.reach_m
  if (bodies.load_m === null && beyond_m < body_m) return found({ ...on, verdict: 'not-proven', reason: 'stands-unsized' })
  const load_m = bodies.load_m === null ? beyond_m : moving.least(bodies.loadTo(personAt(at))).least_m
  const behind_m = tailGap_m(ctx, moving, at)
  const { recoil_m } = ctx.machine.hoist
  const nears: Near[] = [
    { gap_m: load_m, limit: body_m, outside: 'stands-under', inside: 'stands-clear' },
    { gap_m: behind_m, limit: body_m, outside: 'stands-by-tail', inside: 'stands-clear' },
  ]
  if (recoil_m !== undefined)
    nears.push({ gap_m: lineGap_m(ctx, at), limit: recoil_m, outside: 'stands-in-line', inside: 'stands-off-line' })
  const { gap_m, limit, outside, inside } = nears.reduce((a, b) => (b.gap_m / b.limit < a.gap_m / a.limit ? b : a))
  const use = shareOf(limit, gap_m)
  const figures = { quantity: 'length', measured: gap_m, nominal: gap_m, limit, utilisation: use } as const
  const verdict = byUse(use, ctx.near_share)
  return found({ ...on, ...figures, verdict, reason: verdict === 'outside' ? outside : inside })
}
