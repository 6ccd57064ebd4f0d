import { found } from '../finding/finding'
import { UNREACHABLE } from './area'
import type { Check } from './check'

/** The boom gets to every radius of the path: long enough, and inside its angles. */
export const boomLimitsCheck: Check<'boom-limits'> = {
  id: 'boom-limits',
  since: 1,
  run: ({ reached, step }) => {
    if (!reached) return []
    const outside = {
      check: 'boom-limits',
      verdict: 'outside',
      at: { radius_m: reached.radius_m, slew_deg: step.setDown.slew_deg },
    } as const
    const { boom_m } = step
    return reached.reason === 'out-of-reach'
      ? [found({ ...outside, reason: reached.reason, detail: { boom_m } })]
      : [found({ ...outside, reason: reached.reason, detail: { angle_deg: reached.limit_deg, boom_m } })]
  },
  field: () => [{ id: 'boom-limits', weighs: false, useAt: ({ ring }) => (ring.reaches ? 0 : UNREACHABLE) }],
  heldBackBy: ['mass'],
  impliedBy: ['overturning'],
  remedies: ['boom', 'radius'],
}
