import { type Finding, found, type Verdict } from '../finding/finding'
import type { SetupPlan } from '../lift/plan'
import { high, low, nominal } from '../quantity/measured'
import type { ChosenTable } from './rating'

/** Tilt at the worse end of its doubt against what the table allows, by a bubble that was itself proved. */
export function levelFinding(setup: SetupPlan, chosen: ChosenTable | null): { finding: Finding; tilt_deg: number | null } {
  const { pitch_deg, roll_deg, bubbleProved } = setup.level
  if (pitch_deg === null || roll_deg === null) {
    return { finding: found({ check: 'level', verdict: 'not-proven', reason: 'unread' }), tilt_deg: null }
  }
  const worst = (t: typeof pitch_deg) => Math.max(Math.abs(low(t)), Math.abs(high(t)))
  const tilt_deg = Math.hypot(worst(pitch_deg), worst(roll_deg))
  const flat = Math.hypot(nominal(pitch_deg), nominal(roll_deg))
  if (!chosen) return { finding: found({ check: 'level', verdict: 'not-proven', reason: 'no-limit' }), tilt_deg }
  const limit = chosen.table.level_deg
  const judged: Verdict = tilt_deg > limit + 1e-9 ? 'outside' : 'inside'
  return {
    tilt_deg,
    finding: found({
      check: 'level',
      verdict: judged === 'inside' && !bubbleProved ? 'not-proven' : judged,
      reason: judged === 'inside' && !bubbleProved ? 'bubble-unproved' : 'tilt',
      quantity: 'angle',
      measured: tilt_deg,
      nominal: flat,
      limit,
      utilisation: tilt_deg / limit,
    }),
  }
}
