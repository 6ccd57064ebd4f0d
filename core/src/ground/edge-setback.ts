import { z } from 'zod'
import { defineCalculator } from '../calculator/define'
import { measuredNotNegative, measuredPositive, notNegative } from '../quantity/measured'
import { edgeSoils, edgeStructures } from './edge'

/** Distance from the pad's edge to the toe, in depths: one where the ground is firm, two where it is loose or wet. */
const depths = { firm: 1, loose: 2, wet: 2 } as const satisfies Record<(typeof edgeSoils)[number], number>

/** From the crest of a slope a pad stays at least its own width, and never less than this, metres. */
const leastFromCrest_m = 1
/** A pad that presses with more than this beside a slope is no matter for a rule of thumb, newtons. */
export const heavyFoot_N = 300_000

/**
 * How far a pad stays from an edge: in depths from the toe, and from the crest of a battered slope besides, since a slope carries
 * less at its lip than a wall of earth behind it. At walls, voids and culverts, and under a heavy leg inside twice the depth, no
 * rule of thumb holds: an engineer decides.
 */
export function edgeSetback(input: {
  padEdgeToToe_m: number
  padEdgeToCrest_m?: number | undefined
  depth_m: number
  soil: keyof typeof depths
  siteMinimum_m?: number | undefined
  padWidth_m?: number | undefined
  /** The most that the pad presses with, the load on the hook. */
  reaction_N?: number | undefined
  structure?: (typeof edgeStructures)[number] | undefined
}) {
  const required_m = Math.max(input.depth_m * depths[input.soil], input.siteMinimum_m ?? 0)
  const crestRequired_m =
    input.padEdgeToCrest_m === undefined ? null : Math.max(leastFromCrest_m, input.padWidth_m ?? 0, input.siteMinimum_m ?? 0)
  const shortToe_m = Math.max(0, required_m - input.padEdgeToToe_m)
  const shortCrest_m = crestRequired_m === null ? 0 : Math.max(0, crestRequired_m - (input.padEdgeToCrest_m ?? 0))
  const short_m = Math.max(shortToe_m, shortCrest_m)
  const heavy = (input.reaction_N ?? 0) > heavyFoot_N && input.padEdgeToToe_m < 2 * input.depth_m
  const engineer = (input.structure !== undefined && input.structure !== 'none') || heavy
  return { required_m, crestRequired_m, ok: engineer ? null : short_m === 0, short_m, engineer }
}

export const edgeSetbackCalculator = defineCalculator({
  name: 'edge-setback',
  purpose: 'How far a pad has to stay from an excavation or an edge.',
  source:
    'Rule of practice: one depth on firm ground, two on loose or wet; from a crest the pad’s width, at least 1 m; site rule if greater.',
  cautions: [
    'Beside walls, voids and culverts only an engineer can say; this rule does not hold there.',
    'Water and vibration weaken an edge during the day: look again.',
  ],
  input: z.strictObject({
    padEdgeToToe_m: measuredNotNegative,
    padEdgeToCrest_m: measuredNotNegative.optional(),
    depth_m: measuredNotNegative,
    soil: z.enum(edgeSoils),
    siteMinimum_m: notNegative.optional(),
    padWidth_m: measuredPositive.optional(),
    reaction_N: measuredNotNegative.optional(),
    structure: z.enum(edgeStructures).optional(),
  }),
  output: z.object({
    required_m: z.number(),
    crestRequired_m: z.number().nullable(),
    ok: z.boolean().nullable(),
    short_m: z.number(),
    engineer: z.boolean(),
  }),
  worse: {
    required_m: 'high',
    crestRequired_m: 'high',
    ok: { words: [true, null, false] },
    short_m: 'high',
    engineer: true,
  },
  example: { padEdgeToToe_m: 2.1, depth_m: 1.4, soil: 'loose' },
  compute: edgeSetback,
})
