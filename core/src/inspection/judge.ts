import { Refusal } from '../refusal'
import { type Judgement, judgeChange } from '../wear/judge-change'
import { wear } from '../wear/wear'
import { type Measure, measureLabel, measureUnit } from './measure'

/**
 * Judges a reading by its measure.
 * @throws Refusal `implausible` for what no such part can read: negative, or far outside what was fitted.
 */
export function judge(m: Measure, reading: number): Judgement {
  if (!Number.isFinite(reading) || reading < 0) {
    throw new Refusal('implausible', `${measureLabel(m)}: give a reading of zero or more in ${measureUnit(m)}.`, 'reading')
  }
  if (m.kind === 'wear') {
    const w = wear({ kind: m.wear, nominal: m.nominal, measured: reading, makerLimit: m.makerLimit })
    return m.source ? { ...w, source: m.source } : w
  }
  if (m.kind !== 'range') return judgeChange(m, reading)
  const span = m.most - m.least
  if (reading > m.most + 5 * span) {
    throw new Refusal(
      'implausible',
      `${m.label}: ${reading} ${m.unit} is far beyond ${m.most} ${m.unit}; check the figure and its unit.`,
      'reading',
    )
  }
  const inside = Math.min(reading - m.least, m.most - reading)
  return {
    query: null,
    verdict: inside < 0 ? 'discard' : inside < (m.watchWithin ?? 0) ? 'watch' : 'ok',
    value: reading,
    limit: reading - m.least < m.most - reading ? m.least : m.most,
    unit: m.unit,
    source: m.source,
  }
}
