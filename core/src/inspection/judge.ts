import { Refusal } from '../refusal'
import type { Measure } from './walkround'

export interface Judgement {
  /** ok: in order · watch: in order, close to its limit · discard: beyond it, a defect. */
  verdict: 'ok' | 'watch' | 'discard'
  /** What was judged: the reading itself, or the share lost or grown. */
  value: number
  limit: number
  unit: string
  source: string
}

/**
 * Judges a reading by its measure.
 * @throws Refusal `implausible` for what no such part can read: negative, or far outside what was fitted.
 */
export function judge(m: Measure, reading: number): Judgement {
  if (!Number.isFinite(reading) || reading < 0) {
    throw new Refusal('implausible', `${m.label}: give a reading of zero or more in ${m.unit}.`, 'reading')
  }
  if (m.kind === 'range') {
    const span = m.most - m.least
    if (reading > m.most + 5 * span) {
      throw new Refusal(
        'implausible',
        `${m.label}: ${reading} ${m.unit} is far beyond ${m.most} ${m.unit}; check the figure and its unit.`,
        'reading',
      )
    }
    const inside = Math.min(reading - m.least, m.most - reading)
    const verdict = inside < 0 ? 'discard' : inside < (m.watchWithin ?? 0) ? 'watch' : 'ok'
    return {
      verdict,
      value: reading,
      limit: reading - m.least < m.most - reading ? m.least : m.most,
      unit: m.unit,
      source: m.source,
    }
  }
  const change = (m.kind === 'loss' ? m.nominal - reading : reading - m.nominal) / m.nominal
  if (change < -0.25 || change > 0.75) {
    throw new Refusal(
      'implausible',
      `${m.label}: ${reading} ${m.unit} does not belong to a part of ${m.nominal} ${m.unit}; measure again.`,
      'reading',
    )
  }
  const used = Math.max(0, change)
  return {
    verdict: used >= m.limit_share - 1e-12 ? 'discard' : used >= m.watch_share - 1e-12 ? 'watch' : 'ok',
    value: used,
    limit: m.limit_share,
    unit: 'share',
    source: m.source,
  }
}
