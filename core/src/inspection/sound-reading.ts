import { type WearRule, wearRules } from '../wear/limits'
import { limitsOf, type Measure } from './measure'

/** A reading of a part that is as it was fitted: the middle of a range, the nominal, nothing worn. For examples and made-up history. */
export function soundReading(m: Measure): number {
  if (m.kind === 'range') return (m.least + m.most) / 2
  if (m.kind !== 'wear') return m.nominal
  const rule: WearRule = wearRules[m.wear]
  if (rule.by === 'share') return 0
  if (rule.by === 'range') return m.nominal ?? rule.around
  if (rule.by === 'maker') return rule.direction === 'most' ? 0 : (limitsOf(m).least ?? 0) * 2
  return m.nominal ?? 0
}
