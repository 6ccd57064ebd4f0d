import { z } from 'zod'
import { defineCalculator } from '../calculator/define'
import { g_mps2, rad } from '../physics'
import { measuredPositive } from '../quantity/measured'
import { Refusal } from '../refusal'

/** Where nobody knows how a section slides, it is drawn no further out of level than this, degrees. */
const unknownWithin_deg = 1

export const sectionSlideCalculator = defineCalculator({
  name: 'section-slide',
  purpose: 'How level a boom has to lie before a section is drawn out by hand, so that it does not slide by itself.',
  source: 'Slides from atan µ on; drawn only within half of it. Friction not known: within 1°.',
  cautions: [
    'Only with nothing on the hook, and with the pin ready to go in.',
    'Grease, ice and wear change how it slides: try a hand’s width first.',
    'Nobody before or behind the section.',
  ],
  input: z.strictObject({
    /** Between the section and what it slides in; left out: not known. */
    friction: measuredPositive.optional(),
    section_kg: measuredPositive,
  }),
  output: z.object({
    /** It slides by itself from here on; null: not known. */
    slides_deg: z.number().nullable(),
    within_deg: z.number(),
    /** What pulls it down the slope at that much, newtons. */
    slope_N: z.number(),
  }),
  worse: { slides_deg: { worse: 'low', nothing: 'unknown' }, within_deg: 'low', slope_N: 'high' },
  example: { friction: 0.08, section_kg: 95 },
  compute: ({ friction, section_kg }) => {
    if (friction !== undefined && friction > 2)
      throw new Refusal('out-of-range', 'No boom section holds like this; friction is a share, as 0.08.', 'friction')
    const slides_deg = friction === undefined ? null : Math.atan(friction) / rad
    const within_deg = slides_deg === null ? unknownWithin_deg : slides_deg / 2
    return { slides_deg, within_deg, slope_N: section_kg * g_mps2 * Math.sin(within_deg * rad) }
  },
})
