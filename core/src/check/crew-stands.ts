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

/** Where somebody stands while the load is up: clear of it with its swing, and of what goes round behind. */
export function standing(ctx: LiftContext, moving: Moving, at: Stand, i: number): Finding {
  const { bodies } = moving
  const r_m = Math.hypot(at.x_m, at.y_m)
  const place = { radius_m: r_m, slew_deg: normalDegrees(Math.atan2(at.y_m, at.x_m) / rad) }
  const on = { check: 'people', subject: `stand-${i + 1}`, at: place, detail: { role: at.role } } as const
  const beyond_m = r_m - moving.reach_m
  if (bodies.load_m === null && beyond_m < body_m) return found({ ...on, verdict: 'not-proven', reason: 'stands-unsized' })
  const load_m = bodies.load_m === null ? beyond_m : moving.least(bodies.loadTo(personAt(at))).least_m
  const behind_m = tailGap_m(ctx, moving, at)
  const gap_m = Math.min(load_m, behind_m)
  const use = shareOf(body_m, gap_m)
  const figures = { quantity: 'length', measured: gap_m, nominal: gap_m, limit: body_m, utilisation: use } as const
  const verdict = byUse(use, ctx.near_share)
  const reason = verdict === 'outside' ? (load_m <= behind_m ? 'stands-under' : 'stands-by-tail') : 'stands-clear'
  return found({ ...on, ...figures, verdict, reason })
}
