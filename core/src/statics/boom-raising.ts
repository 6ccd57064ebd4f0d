import { z } from 'zod'
import { defineCalculator } from '../calculator/define'
import { g_mps2, rad } from '../physics'
import { finite, measured, measuredNotNegative, measuredPositive, notNegative } from '../quantity/measured'
import { Refusal } from '../refusal'
import { leastOn } from '../search'

export interface Raising {
  angle_deg: number
  /** Force in the pendants that holds the boom at this angle. */
  pendant_N: number
  /** Distance of the pendant's line from the boom foot. */
  pendantArm_m: number
  frontMargin_m: number
  backMargin_m: number
}

interface RaisingInput {
  boom: readonly { mass_kg: number; at_m: number }[]
  foot: { x_m: number; height_m: number }
  pendant: { at_m: number; mast_x_m: number; mast_height_m: number }
  base: { mass_kg: number; x_m: number }
  counterweight: { mass_kg: number; x_m: number }
  front_m: number
  back_m: number
  keepMargin_m: number
  angles_deg: readonly number[]
}

/** Degrees between the angles looked at on the way up, each extreme refined between them. */
const raisingStep_deg = 0.5

/** The counterweight has to stand at least this far behind the line it is reckoned about, metres; nearer it holds nothing. */
const leastArm_m = 0.01

/**
 * Raising a lattice boom off the ground. T = Σm·g·x/h_T: x each mass's distance ahead of the boom foot, h_T the distance of
 * the pendant's line (mast head to boom) from the foot. Margins: the whole machine's weight against its front and rear edges.
 * Extremes are those over the whole way from the lowest angle given, where the boom lies, to the highest; a boom that lies below
 * level passes level on its way.
 *
 * @throws Refusal `pendant-through-foot` when the pendants cannot hold the boom at an angle; `counterweight-ahead` when the
 * counterweight does not stand behind the edge it should hold.
 */
export function boomRaising(input: RaisingInput) {
  const edge = input.front_m - input.keepMargin_m
  if (edge - input.counterweight.x_m < leastArm_m) {
    throw new Refusal(
      'counterweight-ahead',
      'The counterweight does not stand behind the edge it should hold; give x_m further back.',
      'counterweight.x_m',
    )
  }
  const at = (angle_deg: number, path?: string) => raisingAt(input, angle_deg, path)
  const angles = input.angles_deg.map((a, i) => at(a, `angles_deg.${i}`).shown)
  const from = Math.min(...input.angles_deg)
  const to = Math.max(...input.angles_deg, Math.min(0, -from))
  const least = (f: (angle_deg: number) => number) => leastOn(f, from, Math.max(to, from + 1e-9), raisingStep_deg, 1e-9)
  const pendant = least((a) => -at(a).shown.pendant_N)
  const front = least((a) => at(a).shown.frontMargin_m)
  const back = least((a) => at(a).shown.backMargin_m)
  const needed = least((a) => -at(a).needed_kg)
  const needed_kg = Math.max(0, -needed.y)
  return {
    angles,
    greatestPendant_N: -pendant.y,
    greatestPendantAt_deg: pendant.x,
    leastFrontMargin_m: front.y,
    leastFrontAt_deg: front.x,
    leastBackMargin_m: back.y,
    leastBackAt_deg: back.x,
    counterweightNeeded_kg: needed_kg,
    counterweightShort_kg: Math.max(0, needed_kg - input.counterweight.mass_kg),
    /** Both margins stay at what is to be kept, all the way up. */
    stands: front.y >= input.keepMargin_m - 1e-9 && back.y >= input.keepMargin_m - 1e-9,
  }
}

function raisingAt(input: RaisingInput, angle_deg: number, path = 'angles_deg'): { shown: Raising; needed_kg: number } {
  const { foot, pendant, counterweight: cw, base } = input
  const boom_kg = input.boom.reduce((s, m) => s + m.mass_kg, 0)
  const moment_kgm = input.boom.reduce((s, m) => s + m.mass_kg * m.at_m, 0)
  const [c, s] = [Math.cos(angle_deg * rad), Math.sin(angle_deg * rad)]
  // From the boom foot: where the pendant meets the boom, and the mast head.
  const [bx, bz] = [pendant.at_m * c, pendant.at_m * s]
  const [mx, mz] = [pendant.mast_x_m - foot.x_m, pendant.mast_height_m - foot.height_m]
  const arm = (bx * mz - bz * mx) / Math.hypot(mx - bx, mz - bz)
  if (!(arm > 1e-6)) {
    throw new Refusal(
      'pendant-through-foot',
      `At ${angle_deg.toFixed(1)}° the pendant's line runs through or below the boom foot and cannot hold the boom; raise the mast.`,
      path,
    )
  }
  const boomAhead_kgm = moment_kgm * c + boom_kg * foot.x_m
  const all_kg = boom_kg + base.mass_kg + cw.mass_kg
  const x = (boomAhead_kgm + base.mass_kg * base.x_m + cw.mass_kg * cw.x_m) / all_kg
  // Counterweight at which the resultant stands keepMargin behind the front edge.
  const edge = input.front_m - input.keepMargin_m
  const over_kgm = boomAhead_kgm - boom_kg * edge + base.mass_kg * (base.x_m - edge)
  return {
    shown: {
      angle_deg,
      pendant_N: Math.max(0, (moment_kgm * c * g_mps2) / arm),
      pendantArm_m: arm,
      frontMargin_m: input.front_m - x,
      backMargin_m: x + input.back_m,
    },
    needed_kg: over_kgm / (edge - cw.x_m),
  }
}

export const boomRaisingCalculator = defineCalculator({
  name: 'boom-raising',
  purpose:
    'Force in the pendants while a lattice boom is raised, the margins, and the counterweight it needs to leave the ground.',
  source: 'Moments about the boom foot, T = Σm·g·x/h_T; moments about the edges.',
  cautions: [
    'The maker’s raising table decides which lengths may be raised without extra counterweight.',
    'Wind, slope and the jerk of leaving the ground are not in here.',
  ],
  input: z.strictObject({
    boom: z
      .array(z.strictObject({ mass_kg: measuredPositive, at_m: measuredNotNegative }))
      .min(1)
      .max(100),
    foot: z.strictObject({ x_m: measured, height_m: measured }),
    pendant: z.strictObject({ at_m: measuredPositive, mast_x_m: measured, mast_height_m: measured }),
    base: z.strictObject({ mass_kg: measuredPositive, x_m: measured }),
    counterweight: z.strictObject({ mass_kg: measuredNotNegative, x_m: measured }),
    front_m: measuredPositive,
    back_m: measuredPositive,
    keepMargin_m: notNegative,
    angles_deg: z.array(finite.min(-10, 'At least −10°.').max(89, 'At most 89°.')).min(1).max(500),
  }),
  output: z.object({
    angles: z.array(
      z.object({
        angle_deg: z.number(),
        pendant_N: z.number(),
        pendantArm_m: z.number(),
        frontMargin_m: z.number(),
        backMargin_m: z.number(),
      }),
    ),
    greatestPendant_N: z.number(),
    greatestPendantAt_deg: z.number(),
    leastFrontMargin_m: z.number(),
    leastFrontAt_deg: z.number(),
    leastBackMargin_m: z.number(),
    leastBackAt_deg: z.number(),
    counterweightNeeded_kg: z.number(),
    counterweightShort_kg: z.number(),
    stands: z.boolean(),
  }),
  worse: {
    angles: { rows: 'angle_deg' },
    'angles.*.angle_deg': 'given',
    'angles.*.pendant_N': 'high',
    'angles.*.pendantArm_m': 'low',
    'angles.*.frontMargin_m': 'low',
    'angles.*.backMargin_m': 'low',
    greatestPendant_N: 'high',
    greatestPendantAt_deg: 'either',
    leastFrontMargin_m: 'low',
    leastFrontAt_deg: 'either',
    leastBackMargin_m: 'low',
    leastBackAt_deg: 'either',
    counterweightNeeded_kg: 'high',
    counterweightShort_kg: 'high',
    stands: false,
  },
  effort: 1500,
  example: {
    boom: [
      { mass_kg: 6500, at_m: 22 },
      { mass_kg: 900, at_m: 48 },
    ],
    foot: { x_m: 1.2, height_m: 1.8 },
    pendant: { at_m: 46, mast_x_m: -5, mast_height_m: 11 },
    base: { mass_kg: 42000, x_m: 0.1 },
    counterweight: { mass_kg: 30000, x_m: -4.6 },
    front_m: 3.1,
    back_m: 3.1,
    keepMargin_m: 0.3,
    angles_deg: [0, 15, 30, 45, 60, 75],
  },
  compute: (input) => boomRaising(input),
})
