import { found } from '../finding/finding'
import { UNREACHABLE } from './area'
import type { Check } from './check'
import { arcInside } from './choose-table'
import { straddleMotion } from './straddle'
import { towMotion } from './towing'
import { truckMotion } from './truck-stands'

/** What a way of standing allows: through which slews, with which boom. Braced or propped, a boom does not turn. */
export const motionCheck: Check<'motion'> = {
  id: 'motion',
  since: 1,
  run: ({ support: { state }, path, step, ballastHangs }) => {
    const base = { check: 'motion', at: { radius_m: path.greatest_m, slew_deg: step.setDown.slew_deg } } as const
    if (ballastHangs === false) return [found({ ...base, verdict: 'outside', reason: 'ballast-stands', detail: {} })]
    if (ballastHangs) return [found({ ...base, verdict: 'inside', reason: 'ballast-hangs', detail: {} })]
    if (!state) return []
    const { slew, boom_m, label } = state
    if (state.for !== 'lift') return [found({ ...base, verdict: 'outside', reason: 'made-otherwise', detail: { label } })]
    if (slew && !arcInside(slew, path.arc))
      return [found({ ...base, verdict: 'outside', reason: 'does-not-turn', detail: { label, ...slew } })]
    if (boom_m && !boom_m.includes(step.boom_m))
      return [found({ ...base, verdict: 'outside', reason: 'other-boom', detail: { label, boom_m: step.boom_m } })]
    if (state.upAndDown && (path.least_m !== path.greatest_m || path.arc.from_deg !== path.arc.to_deg))
      return [found({ ...base, verdict: 'outside', reason: 'up-and-down', detail: { label } })]
    return [found({ ...base, verdict: 'inside', reason: 'allowed', detail: { label } })]
  },
  field: ({ lift }) => {
    const state = lift?.support.state
    // What only goes straight up and down, or tows, has no ground to cover.
    if (state && (state.for !== 'lift' || state.upAndDown)) return [{ id: 'motion', weighs: false, useAt: () => UNREACHABLE }]
    if (!state?.slew) return []
    const { slew } = state
    const useAt = ({ slew_deg }: { slew_deg: number }) =>
      arcInside(slew, { from_deg: slew_deg, to_deg: slew_deg }) ? 0 : UNREACHABLE
    return [{ id: 'motion', weighs: false, useAt }]
  },
  tow: towMotion,
  straddle: straddleMotion,
  truck: truckMotion,
  heldBackBy: [],
  impliedBy: [],
  remedies: ['support', 'slew-direction', 'set-down-slew', 'boom'],
}
