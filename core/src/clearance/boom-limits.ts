import { z } from 'zod'
import { defineCalculator } from '../calculator/define'
import { rad } from '../physics'
import { measured, measuredNotNegative, measuredPositive } from '../quantity/measured'
import { Refusal } from '../refusal'

/**
 * The steepest angle at which what stands highest at a boom's head stays under a height over the pivot: L·sin θ + c·cos θ = h, c how far
 * it stands out square to the boom. Null: no angle reaches so high.
 *
 * @throws Refusal `no-room` where it is over that height at every angle up to upright
 * @example angleUnder(10, 0, 5) // 30°
 */
export function angleUnder(boom_m: number, above_m: number, room_m: number): number | null {
  const reach_m = Math.hypot(boom_m, above_m)
  if (room_m >= reach_m) return null
  const lean_deg = Math.atan2(above_m, boom_m) / rad
  if (room_m <= -reach_m) throw new Refusal('no-room', 'The ceiling is too low for this boom at any angle.', 'ceiling_m')
  return Math.asin(room_m / reach_m) / rad - lean_deg
}

export const boomLimitsCalculator = defineCalculator({
  name: 'boom-limits',
  purpose: 'What to set a boom’s limits of angle, height and reach to under a ceiling or before a wall.',
  source: 'Plane geometry: L·sin θ + c·cos θ under the ceiling less what is kept, reach short of the wall less what is kept.',
  cautions: [
    'Try each limit slowly with nothing on the hook before it is relied on.',
    'A boom springs up when a load comes off: keep room for it.',
    'A wall is measured square to it, from the middle of the slewing ring; lamps, beams and sprinklers are the ceiling.',
    'The machine’s display says what its limits are measured to: boom head, hook or tool.',
  ],
  input: z.strictObject({
    /** Longest boom to be used under it. */
    boom_m: measuredPositive,
    pivot: z.strictObject({ back_m: measured, height_m: measured }),
    /** What stands highest at the head, square to the boom. */
    headAbove_m: measuredNotNegative,
    /** What sticks out past the head, along the boom: a tool, a block, a jib. */
    headAhead_m: measuredNotNegative,
    ceiling_m: measuredPositive.optional(),
    wallAway_m: measuredPositive.optional(),
    keep_m: measuredNotNegative,
  }),
  output: z.object({
    height_m: z.number().nullable(),
    angle_deg: z.number().nullable(),
    reach_m: z.number().nullable(),
    levelBoom_m: z.number().nullable(),
  }),
  worse: {
    height_m: { worse: 'low', nothing: 'best' },
    angle_deg: { worse: 'low', nothing: 'best' },
    reach_m: { worse: 'low', nothing: 'best' },
    levelBoom_m: { worse: 'low', nothing: 'best' },
  },
  example: {
    boom_m: 14,
    pivot: { back_m: 1.4, height_m: 2.3 },
    headAbove_m: 0.45,
    headAhead_m: 0.6,
    ceiling_m: { value: 8.2, tolerance: 0.05 },
    wallAway_m: 11,
    keep_m: 0.5,
  },
  compute: ({ boom_m, pivot, headAbove_m, headAhead_m, ceiling_m, wallAway_m, keep_m }) => {
    if (ceiling_m === undefined && wallAway_m === undefined)
      throw new Refusal('missing-field', 'Give the height of the ceiling, or how far the wall is.', 'ceiling_m')
    const height_m = ceiling_m === undefined ? null : ceiling_m - keep_m
    const reach_m = wallAway_m === undefined ? null : wallAway_m - keep_m
    if (height_m !== null && !(height_m > 0))
      throw new Refusal('no-room', 'What is to be kept leaves nothing under the ceiling.', 'ceiling_m')
    if (reach_m !== null && !(reach_m > 0))
      throw new Refusal('no-room', 'What is to be kept leaves nothing before the wall.', 'wallAway_m')
    // All that is past the pivot swings with the boom.
    const angle_deg = height_m === null ? null : angleUnder(boom_m + headAhead_m, headAbove_m, height_m - pivot.height_m)
    const levelBoom_m = reach_m === null ? null : reach_m + pivot.back_m - headAhead_m
    if (levelBoom_m !== null && !(levelBoom_m > 0))
      throw new Refusal('no-room', 'The wall is nearer than the boom’s own foot lets it stand.', 'wallAway_m')
    return { height_m, angle_deg, reach_m, levelBoom_m }
  },
})
