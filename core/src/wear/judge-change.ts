import { Refusal } from '../refusal'

/** What is lost or grown of what was fitted, and how much of that is allowed. */
export interface ChangeMeasure {
  /** 'either': too much and too little are both wrong, as with the pressure of a tyre. */
  kind: 'loss' | 'growth' | 'either'
  label: string
  unit: string
  nominal: number
  limit_share: number
  watch_share: number
  source: string
}

export interface Judgement {
  /** ok: in order · watch: close to its limit, or queried · discard: at its limit or beyond, a defect. */
  verdict: 'ok' | 'watch' | 'discard'
  /** What was judged: the reading itself, or the share lost or grown. */
  value: number
  limit: number
  unit: string
  source: string
  /** What is odd about the reading and has to be asked; such a part is never in order without an answer. */
  query: string | null
}

/**
 * Judges a reading by what has been lost or has grown of the nominal.
 * @throws Refusal `implausible` for what no such part can read.
 */
export function judgeChange(m: ChangeMeasure, reading: number): Judgement {
  const grown = (reading - m.nominal) / m.nominal
  const change = m.kind === 'growth' ? grown : m.kind === 'loss' ? -grown : Math.abs(grown)
  if (!Number.isFinite(reading) || reading < 0 || change < -0.25 || change > 0.75) {
    throw new Refusal(
      'implausible',
      `${m.label}: ${reading} ${m.unit} does not belong to a part of ${m.nominal} ${m.unit}; measure again.`,
      'reading',
    )
  }
  const used = Math.max(0, change)
  const query =
    change < -1e-9
      ? `${m.label}: ${reading} ${m.unit} is ${grown > 0 ? 'more' : 'less'} than it was when new, ${m.nominal} ${m.unit}; measure again, or correct the nominal.`
      : null
  return {
    query,
    verdict: used >= m.limit_share - 1e-12 ? 'discard' : query !== null || used >= m.watch_share - 1e-12 ? 'watch' : 'ok',
    value: used,
    limit: m.limit_share,
    unit: 'share',
    source: m.source,
  }
}
