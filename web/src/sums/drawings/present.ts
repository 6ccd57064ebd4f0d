import { byUse, type Quantity, type Say, usualNear_share, type Verdict } from '@geolabe/core'
import type { ComponentType } from 'react'

/** One figure of an answer, large. */
export interface Hero {
  label: string
  value: string
  /** How it stands to its limit, where there is one. */
  verdict?: Verdict
}

/** How one calculator is shown: its answer, its formula with the person’s own figures, its drawing. */
export interface Presentation {
  name: string
  hero: (input: unknown, output: unknown, say: Say) => Hero[]
  steps: (input: unknown, output: unknown) => string[]
  Drawing: ComponentType<{ input: unknown; output: unknown; say: Say }>
}

/** Typed where it is written, plain where it is listed. */
export function present<I, O>(p: {
  name: string
  hero: (i: I, o: O, say: Say) => Hero[]
  steps: (i: I, o: O) => string[]
  Drawing: ComponentType<{ input: I; output: O; say: Say }>
}): Presentation {
  return p as unknown as Presentation
}

/** A figure in a formula: SI, no more digits than carry meaning. */
export const fig = (v: number, digits = 2) =>
  v.toLocaleString('en-GB', {
    maximumFractionDigits: digits,
    minimumFractionDigits: Math.abs(v) < 100 && digits > 0 ? Math.min(1, digits) : 0,
  })
export const kN = (v: number, digits = 1) => `${fig(v / 1000, digits)} kN`

export const hero = (say: Say, label: string, q: Quantity, v: number | null | 'not-rated', none = 'not given'): Hero => ({
  label,
  value: v === null ? none : v === 'not-rated' ? 'not rated' : say(q, v),
})
/** How a share of a limit stands, where no site says from when on it is near. */
export const verdictOf = (share: number | null): Verdict => (share === null ? 'not-proven' : byUse(share, usualNear_share))

/** A share of a limit. */
export const use = (say: Say, label: string, share: number | null): Hero => ({
  label,
  value: share === null ? 'not proven' : say('share', share),
  verdict: verdictOf(share),
})
export const yes = (label: string, ok: boolean | null, good: string, bad: string): Hero => ({
  label,
  value: ok === null ? 'not proven' : ok ? good : bad,
  verdict: ok === null ? 'not-proven' : ok ? 'inside' : 'outside',
})
