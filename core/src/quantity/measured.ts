import { z } from 'zod'

/** A finite number; NaN and ±Infinity are refused. */
export const finite = z.number({ error: 'Give a number.' })
export const positive = finite.positive('Must be more than zero.')
export const notNegative = finite.min(0, 'Must not be negative.')

/** A measured or estimated figure: the value and how far off it may be, either way, in the same unit. */
export const tolerant = z.strictObject({ value: finite, tolerance: notNegative })
export type Tolerant = z.infer<typeof tolerant>
/** `Tol` of the engineering basis: a plain number is exact. */
export type Tol = number | Tolerant

/** A measured input: number or {value, tolerance}; `check` holds for both ends of the range. */
function measuredAs(check: z.ZodNumber, bound: (low: number) => boolean, message: string) {
  return z.union([
    check,
    tolerant.refine((t) => bound(t.value - t.tolerance), {
      message: `${message} That must hold for value − tolerance too.`,
      path: ['tolerance'],
    }),
  ])
}

export const measured = measuredAs(finite, () => true, '')
export const measuredPositive = measuredAs(positive, (low) => low > 0, 'Must be more than zero.')
export const measuredNotNegative = measuredAs(notNegative, (low) => low >= 0, 'Must not be negative.')

/** The same input with every Tol narrowed to its number. */
export type Nominal<T> = T extends number | Tolerant
  ? number
  : T extends readonly (infer E)[]
    ? Nominal<E>[]
    : T extends object
      ? { [K in keyof T]: Nominal<T[K]> }
      : T

export function low(t: Tol): number {
  return typeof t === 'number' ? t : t.value - t.tolerance
}
export function high(t: Tol): number {
  return typeof t === 'number' ? t : t.value + t.tolerance
}
export function nominal(t: Tol): number {
  return typeof t === 'number' ? t : t.value
}

/** Both ends of a doubt; one where there is none. */
export const endsOf = (t: Tol): number[] => [...new Set([low(t), high(t)])]
