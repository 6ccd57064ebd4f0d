import type { AsMeasured } from './drawings/present'
import { type Json, moved, type Obj, plainOf } from './schema'

/** What was typed as measured: from which input, and what was made of it. */
export interface Typed {
  base: Obj
  figures: Readonly<Record<string, number | undefined>>
  made: Obj
}

/** The figures as they stand: as typed, as long as nothing else has changed the input since; else as the input has them. */
export function measuredNow(measured: AsMeasured<unknown>, input: Obj, typed: Typed | null): Record<string, number | undefined> {
  const own = Object.entries(measured.figures).map(([name, of]) => [name, Number(of(plainOf(input)).toFixed(4))] as const)
  return { ...Object.fromEntries(own), ...(typed?.made === input ? typed.figures : {}) }
}

/**
 * Another figure typed. All that was typed is worked out from the input as it was before: a nought on the way to 0.9 collapses nothing for good.
 *
 * @param v undefined: it cannot be read, or is not there; the input stays as it is
 */
export function withMeasured(
  measured: AsMeasured<unknown>,
  input: Obj,
  typed: Typed | null,
  name: string,
  v: number | undefined,
): Typed {
  const going = typed?.made === input ? typed : { base: input, figures: {}, made: input }
  const figures = { ...going.figures, [name]: v }
  if (v === undefined) return { ...going, figures }
  const before = plainOf(going.base)
  const all = Object.fromEntries(Object.entries(measured.figures).map(([k, of]) => [k, figures[k] ?? of(before)]))
  const part: Json = JSON.parse(JSON.stringify(measured.to(all, before)))
  return { base: going.base, figures, made: moved(going.base, part) as Obj }
}
