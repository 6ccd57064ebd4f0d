import { z } from 'zod'
import { g_mps2 } from '../../physics'
import { notNegative, positive } from '../../quantity/measured'
import { Refusal } from '../../refusal'
import type { HoistModel } from './hoist'
import { lineSum } from './line'

export const hoistPart = z.strictObject({
  linePull_N: positive,
  sheaveEfficiency: positive.max(1, 'At most 1.'),
  leadSheaves: z.int().min(0),
  /** What its hook stop does: it trips the motion (where nothing is said), or the hoist is made to stall against it. */
  hookStop: z.enum(['trips', 'stalls']).optional(),
  /** Nobody stands so near to the line of its rope while that pulls: it flies back along it. Left out: its book says nothing of it. */
  recoil_m: positive.optional(),
  reevings: z
    .array(
      z.strictObject({
        parts: z.int().min(1).max(32),
        block: z.strictObject({
          name: z.string().min(1),
          mass_kg: notNegative,
          hook_kg: positive,
          /** From the boom's head down to the hook when the hook stop works. */
          leastDrop_m: positive.optional(),
        }),
      }),
    )
    .min(1),
})
export type HoistPart = z.infer<typeof hoistPart>

export interface Reeving {
  linePull_N: number
  parts: number
  /** Share of the line force that passes each sheave, 0–1. */
  sheaveEfficiency: number
  /** Sheaves between drum and block. One, the head's, unless more are given. */
  leadSheaves?: number | undefined
}

/** Greatest mass a reeving can lift, kg: F·η^k·(1−ηⁿ)/(1−η)/g. */
export function lineLimit_kg(h: Reeving): number {
  const e = h.sheaveEfficiency
  return (h.linePull_N * e ** (h.leadSheaves ?? 1) * lineSum(h.parts, e)) / g_mps2
}

/** A winch with a wire rope over sheaves. */
export function ropeHoist(name: string, part: HoistPart): HoistModel {
  const { linePull_N, sheaveEfficiency, leadSheaves, reevings } = part
  const reevingOf = (parts: number | undefined) => {
    const reeving = reevings.find((r) => r.parts === parts)
    if (reeving) return reeving
    const known = reevings.map((r) => r.parts).join(', ')
    const wrong = parts === undefined ? 'Say in how many parts of line it is reeved' : `${name} is not reeved in ${parts} parts`
    throw new Refusal('unknown-reeving', `${wrong}; it can be in ${known}.`, 'setup.fitted.partsOfLine')
  }
  return {
    parts: reevings.map((r) => r.parts),
    reevedIn: (parts) => reevingOf(parts).parts,
    blockOf: (parts) => reevingOf(parts).block,
    hookStop: part.hookStop ?? 'trips',
    limit_kg: (parts) => lineLimit_kg({ linePull_N, sheaveEfficiency, leadSheaves, parts }),
  }
}
