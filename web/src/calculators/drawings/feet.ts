import type { Say } from '@geolabe/core'
import type { At } from './at'
import type { Part } from './grip'
import type { AsMeasured } from './present'
import { plan } from './scene'

interface Foot {
  id: string
  x_m: number
  y_m: number
}

/** Bearing points that are dragged over the plan. */
export const feet = <K extends string>(list: readonly Foot[], say: Say, name: K) =>
  list.map((s, i) => ({
    label: s.id,
    at: plan(s),
    value: `${say('length', s.x_m)}, ${say('length', s.y_m)}`,
    to: ([x, y]: At) => ({ [name]: { [i]: { x_m: y, y_m: -x } } }) as { [k in K]: { [i: number]: Part<Foot> } },
  }))

/** From the least to the greatest. */
export const wide = (values: readonly number[]) => Math.max(...values) - Math.min(...values)

/** The same values drawn apart, or together, about their middle. */
export function spreadTo(values: readonly number[], to: number): number[] {
  const middle = (Math.max(...values) + Math.min(...values)) / 2
  const by = wide(values) === 0 ? 0 : to / wide(values)
  return values.map((v) => middle + (v - middle) * by)
}

/** Bearing points by what the maker's book gives of them: base along, spread across. */
export const spreadOf = <In, K extends string>(of: (input: In) => readonly Foot[], name: K): AsMeasured<In> => ({
  feet: name,
  figures: {
    outriggerBase_m: (i) => wide(of(i).map((f) => f.x_m)),
    outriggerSpread_m: (i) => wide(of(i).map((f) => f.y_m)),
  },
  to: ({ outriggerBase_m = 0, outriggerSpread_m = 0 }, i) => {
    const along = spreadTo(
      of(i).map((f) => f.x_m),
      outriggerBase_m,
    )
    const across = spreadTo(
      of(i).map((f) => f.y_m),
      outriggerSpread_m,
    )
    return { [name]: Object.fromEntries(of(i).map((_, k) => [k, { x_m: along[k], y_m: across[k] }])) } as Part<In>
  },
})
