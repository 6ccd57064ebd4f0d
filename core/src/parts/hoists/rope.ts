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
  reevings: z
    .array(
      z.strictObject({
        parts: z.int().min(1).max(32),
        block: z.strictObject({ name: z.string().min(1), mass_kg: notNegative, hook_kg: positive }),
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
  return {
    parts: reevings.map((r) => r.parts),
    blockOf: (parts) => {
      const reeving = reevings.find((r) => r.parts === parts)
      if (reeving) return reeving.block
      const known = reevings.map((r) => r.parts).join(', ')
      throw new Refusal('unknown-reeving', `${name} is not reeved in ${parts} parts; it can be in ${known}.`, 'lift.parts')
    },
    limit_kg: (parts) => lineLimit_kg({ linePull_N, sheaveEfficiency, leadSheaves, parts }),
  }
}
