import { anyFold, type Folding } from './articulated'
import type { BoomModel } from './boom'
import { type BoomPart, telescopicBoom } from './telescopic'
import { trolleyJib } from './trolley-jib'

/** A boom part as the folding boom that it is; null: it does not fold. */
export const foldingOf = ({ articulated, pivot }: BoomPart): Folding | null => (articulated ? { ...articulated, pivot } : null)

/** A boom that does not fold, as what it is: of sections, or a jib with a trolley. */
export const straightBoom = (part: BoomPart): BoomModel =>
  part.trolley ? trolleyJib({ ...part, trolley: part.trolley }) : telescopicBoom(part)

/** A boom where nobody says how it gets to a radius: straight; a folding one in the pose that weighs most outwards there. */
export function boomModelOf(part: BoomPart, boom_m: number): BoomModel {
  const folding = foldingOf(part)
  return folding ? anyFold(folding, boom_m) : straightBoom(part)
}
