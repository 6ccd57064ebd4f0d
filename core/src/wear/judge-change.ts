import { Refusal } from '../refusal'

/** What is lost or grown of what was fitted, and how much of that is allowed. */
export interface ChangeMeasure {
  kind: 'loss' | 'growth'
  label: string
  unit: string
  nominal: number
  limit_share: number
  watch_share: number
  source: string
}

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
 * Judges a reading by what has been lost or has grown of the nominal.
 * @throws Refusal `implausible` for what no such part can read.
 */
export function judgeChange(m: ChangeMeasure, reading: number): Judgement {
  const change = (m.kind === 'loss' ? m.nominal - reading : reading - m.nominal) / m.nominal
  if (!Number.isFinite(reading) || reading < 0 || change < -0.25 || change > 0.75) {
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
