import { g_mps2 } from '../../physics'
import { type LimitOf, partOf } from './limit-of'

/** The cylinder of the stage that holds the height, at its working pressure. */
export const gantryLimit: LimitOf = (m) => {
  const gantry = partOf(m, 'gantry', m.gantry)
  return (height) => {
    const stage = gantry.stages.find((s) => Number(height) <= s.upTo_m + 1e-9)
    return stage ? (gantry.share * gantry.working_kPa * 1000 * stage.piston_m2) / g_mps2 : 0
  }
}
