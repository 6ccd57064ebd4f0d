import { z } from 'zod'
import { notNegative, positive } from '../quantity/measured'

/** How a motion answers its lever: degrees for slew, luff and outer boom, metres for the rest, a second. */
export const drive = z.strictObject({
  greatest: positive,
  up: positive,
  down: positive,
  dead_s: notNegative.max(1, 'At most a second.'),
  stop: positive.optional(),
})

const motions = z.strictObject({
  slew: drive.optional(),
  luff: drive.optional(),
  /** The outer boom of a folding one on its hinge, degrees against the inner boom. */
  outer: drive.optional(),
  extend: drive.optional(),
  trolley: drive.optional(),
  hoist: drive,
  /** A frame that drives with its load. */
  travel: drive.optional(),
  /** The rear one of two hoists that carry one load; then the hoist is the front one. */
  rear: drive.optional(),
})
/** What practice moves the machine by; without it none is offered. The hoist's figures are the hook's, in its first gear. */
export const drivesPart = motions.extend({
  /** What the speed of all levers can be set to, of full. */
  leverShares: z.array(positive.max(1, 'A share, at most 1.')).min(2, 'At least two, or leave it out.').max(8).optional(),
  /** Nearer than this its tables rate nothing, and practice goes no nearer. Left out: they begin nearer than it goes. */
  leastRadius_m: positive.optional(),
})
export type DrivesPart = z.infer<typeof drivesPart>
export type MotionName = keyof z.infer<typeof motions>
export const motionName = motions.keyof()
/** In this order a run's inputs name them. */
export const motionNames: readonly MotionName[] = motionName.options
