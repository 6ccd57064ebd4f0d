import { byUse, type Calculator, type Nominal, type Quantity, type Say, usualNear_share, type Verdict } from '@geolabe/core'
import type { ComponentType } from 'react'
import { t } from '../../language/t'
import type { Grip, Part } from './grip'
import type { Mine } from './mine'

/** One figure of an answer, large. */
export interface Hero {
  label: string
  value: string
  /** How it stands to its limit, where there is one. */
  verdict?: Verdict
}

/** Figures as people measure them, by name with the unit at its end; what each is now, and what of the input follows from them. */
export interface AsMeasured<In> {
  figures: Record<string, (input: In) => number>
  to: (figures: Record<string, number>, input: In) => Part<In>
  /** The field of its feet, where these can be told by a machine's marked stops as well. */
  feet?: string
}

/** How one calculator is shown: its answer, its formula with the person’s own figures, its drawing. */
export interface Presentation<In = unknown, Out = unknown> {
  hero: (input: In, output: Out, say: Say) => Hero[]
  steps: (input: In, output: Out) => string[]
  Drawing: ComponentType<{ input: In; output: Out; say: Say }>
  /** What of its drawing is dragged: inputs that are places, lengths or angles. */
  grips?: (input: In, output: Out, say: Say) => Grip<In>[]
  /** What people have in hand instead of some inputs. */
  asMeasured?: AsMeasured<In>
  /** What the open shift's machine and place know of its input; null: nothing as things stand. */
  mine?: (at: Mine) => Partial<In> | null
  /** Inputs can be kept under names and taken up again. */
  keepsInputs?: boolean
}

/** A calculator with the way it is shown, which takes what it was asked and what it answered. */
export interface Presented {
  calculator: Calculator
  presentation: Presentation
}

/** Shows a calculator: its input, each ± at its middle, and its answer reach the drawing with their types. */
export const present = <In, Out extends object>(
  calculator: Calculator<In, Out>,
  presentation: Presentation<Nominal<In>, Out>,
): Presented =>
  // What a calculator is shown is always its own input and answer (`calculator-page.tsx`).
  ({ calculator, presentation: presentation as Presentation })

/** A figure in a formula: SI, no more digits than carry meaning. */
export const fig = (v: number, digits = 2) =>
  v.toLocaleString('en-GB', {
    maximumFractionDigits: digits,
    minimumFractionDigits: Math.abs(v) < 100 && digits > 0 ? Math.min(1, digits) : 0,
  })
export const kN = (v: number, digits = 1) => `${fig(v / 1000, digits)} kN`

export const hero = (say: Say, label: string, q: Quantity, v: number | null | 'not-rated', none = t`not given`): Hero => ({
  label,
  value: v === null ? none : v === 'not-rated' ? t`not rated` : say(q, v),
})
/** How a share of a limit stands, where no site says from when on it is near. */
export const verdictOf = (share: number | null): Verdict => (share === null ? 'not-proven' : byUse(share, usualNear_share))

/** A share of a limit. */
export const use = (say: Say, label: string, share: number | null): Hero => ({
  label,
  value: share === null ? t`not proven` : say('share', share),
  verdict: verdictOf(share),
})
export const yes = (label: string, ok: boolean | null, good: string, bad: string): Hero => ({
  label,
  value: ok === null ? t`not proven` : ok ? good : bad,
  verdict: ok === null ? 'not-proven' : ok ? 'inside' : 'outside',
})
