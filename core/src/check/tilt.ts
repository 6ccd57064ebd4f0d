import type { SetupPlan } from '../lift/plan'
import { high, low, nominal, type Tol } from '../quantity/measured'

/** How far out of level a machine stands, degrees: at the worse end of its ±, and as read; null: not read both ways. */
export function tiltOf(setup: Pick<SetupPlan, 'level'>): { worst_deg: number; nominal_deg: number } | null {
  const { pitch_deg, roll_deg } = setup.level
  if (pitch_deg === null || roll_deg === null) return null
  const worst = (t: Tol) => Math.max(Math.abs(low(t)), Math.abs(high(t)))
  return {
    worst_deg: Math.hypot(worst(pitch_deg), worst(roll_deg)),
    nominal_deg: Math.hypot(nominal(pitch_deg), nominal(roll_deg)),
  }
}
