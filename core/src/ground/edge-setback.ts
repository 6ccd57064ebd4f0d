import { z } from 'zod'
import { defineCalculator } from '../calculator/define'
import { measuredNotNegative, notNegative } from '../calculator/measured'

/** Distance from the pad's edge to the toe, in depths: one where the ground is firm, two where it is loose or wet. */
const depths = { firm: 1, loose: 2, wet: 2 } as const

/** How far a pad stays from an edge. At walls, voids and culverts no rule of thumb holds: an engineer decides. */
export function edgeSetback(input: {
  padEdgeToToe_m: number
  depth_m: number
  soil: keyof typeof depths
  siteMinimum_m?: number | undefined
  structure?: 'none' | 'wall' | 'void' | 'culvert' | undefined
}) {
  const required_m = Math.max(input.depth_m * depths[input.soil], input.siteMinimum_m ?? 0)
  const short_m = Math.max(0, required_m - input.padEdgeToToe_m)
  const engineer = input.structure !== undefined && input.structure !== 'none'
  return { required_m, ok: engineer ? null : short_m === 0, short_m, engineer }
}

export const edgeSetbackCalculator = defineCalculator({
  name: 'edge-setback',
  purpose: 'How far a pad has to stay from an excavation or an edge.',
  source: 'Rule of practice: one depth on firm ground, two on loose or wet; site rule if greater.',
  cautions: [
    'Beside walls, voids and culverts only an engineer can say; this rule does not hold there.',
    'Water and vibration weaken an edge during the day: look again.',
  ],
  input: z.strictObject({
    padEdgeToToe_m: measuredNotNegative,
    depth_m: measuredNotNegative,
    soil: z.enum(['firm', 'loose', 'wet']),
    siteMinimum_m: notNegative.optional(),
    structure: z.enum(['none', 'wall', 'void', 'culvert']).optional(),
  }),
  output: z.object({ required_m: z.number(), ok: z.boolean().nullable(), short_m: z.number(), engineer: z.boolean() }),
  example: { padEdgeToToe_m: 2.1, depth_m: 1.4, soil: 'loose' },
  compute: edgeSetback,
})
