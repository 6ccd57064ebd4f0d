import { lineLimit_kg } from '../../parts/hoists/rope'
import { type LimitOf, partOf } from './limit-of'

/** Each hoist by its line; all together by their sum, and by the frame. */
export const hoistsLimit: LimitOf = (m) => {
  const { each, leadSheaves, sheaveEfficiency, frame_kg } = partOf(m, 'hoists', m.hoists)
  const one = ({ linePull_N, parts }: (typeof each)[number]) => lineLimit_kg({ linePull_N, parts, leadSheaves, sheaveEfficiency })
  return (id) => {
    const h = each.find((x) => x.id === id)
    if (h) return one(h)
    return Math.min(
      frame_kg,
      each.reduce((s, x) => s + one(x), 0),
    )
  }
}
