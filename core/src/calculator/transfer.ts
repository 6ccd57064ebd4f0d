import type { Tol } from '../quantity/measured'

/** Figures of a lift's proof that a calculator can work out. */
const transferable = ['mass_kg', 'windArea_m2', 'wind_mps', 'radius_m'] as const
/** What an answer puts into a lift, each figure with the ± that its inputs gave it. */
export type TransferToLift = { [F in keyof Transfers<object>]?: Tol }

/** Where in an answer each such figure stands; an answer and both its bounds have the same form. */
export interface Transfers<Out> {
  mass_kg?(answer: Out): number | null
  windArea_m2?(answer: Out): number | null
  wind_mps?(answer: Out): number | null
  radius_m?(answer: Out): number | null
}

/** A figure and the ± that reaches both its bounds. */
function withBoundsOf(middle: number, ends: readonly (number | null)[]): Tol {
  const tolerance = Math.max(...ends.map((end) => Math.abs((end ?? middle) - middle)))
  return tolerance > 1e-9 ? { value: middle, tolerance } : middle
}

/**
 * What an answer puts into a lift; null: nothing.
 *
 * @param answer of this calculator, with `low` and `high` beside it where an input had a ±
 * @example transferToLift(loadMassCalculator, answer) // { mass_kg: { value: 2850, tolerance: 60 }, windArea_m2: 3.1 }
 */
export function transferToLift<Out extends object>(
  { transfers }: { transfers?: Transfers<Out> | undefined },
  answer: Out & { low?: Out; high?: Out },
): TransferToLift | null {
  const found: TransferToLift = {}
  for (const figure of transferable) {
    const read = (from: Out) => transfers?.[figure]?.(from) ?? null
    const middle = read(answer)
    if (middle === null) continue
    found[figure] = withBoundsOf(
      middle,
      [answer.low, answer.high].map((end) => (end ? read(end) : middle)),
    )
  }
  return Object.keys(found).length > 0 ? found : null
}
