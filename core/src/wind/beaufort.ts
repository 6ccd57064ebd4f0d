import { z } from 'zod'
import { defineCalculator } from '../calculator/define'
import { nth } from '../list'
import { measuredNotNegative } from '../quantity/measured'
import { Refusal } from '../refusal'

/** Beaufort steps: mean wind over ten minutes at ten metres, m/s, from and up to; what is seen on land. */
const steps = [
  { to_mps: 0.2, name: 'Calm', seen: 'smoke rises straight' },
  { to_mps: 1.5, name: 'Light air', seen: 'smoke drifts' },
  { to_mps: 3.3, name: 'Light breeze', seen: 'wind felt on the face' },
  { to_mps: 5.4, name: 'Gentle breeze', seen: 'leaves and light flags move' },
  { to_mps: 7.9, name: 'Moderate breeze', seen: 'dust and loose paper lift' },
  { to_mps: 10.7, name: 'Fresh breeze', seen: 'small trees sway' },
  { to_mps: 13.8, name: 'Strong breeze', seen: 'large branches move, wires whistle' },
  { to_mps: 17.1, name: 'Near gale', seen: 'whole trees move' },
  { to_mps: 20.7, name: 'Gale', seen: 'twigs break off' },
  { to_mps: 24.4, name: 'Strong gale', seen: 'slates come off' },
  { to_mps: 28.4, name: 'Storm', seen: 'trees uprooted' },
  { to_mps: 32.6, name: 'Violent storm', seen: 'widespread damage' },
  { to_mps: null, name: 'Hurricane', seen: 'devastation' },
] as const

/** A Beaufort step as speeds, or a speed as its step. Decisions use the upper end, and the wind is not known to be less. */
export function beaufort(force: number) {
  const step = nth(steps, force)
  const from_mps = force === 0 ? 0 : (steps[force - 1]?.to_mps ?? 0)
  return { force, name: step.name, seen: step.seen, from_mps, to_mps: step.to_mps }
}

export const beaufortCalculator = defineCalculator({
  name: 'beaufort',
  purpose: 'Wind force as metres per second, and back; the upper end decides.',
  source: 'World Meteorological Organization Beaufort scale, limits in m/s.',
  cautions: [
    'The scale is a ten-minute mean at ten metres; gusts at the tip are far stronger.',
    'Read a gauge where there is one.',
  ],
  input: z.strictObject({
    force: z.int().min(0, 'Forces run from 0 to 12.').max(12, 'Forces run from 0 to 12.').optional(),
    speed_mps: measuredNotNegative.optional(),
  }),
  output: z.object({
    force: z.number(),
    name: z.string(),
    seen: z.string(),
    from_mps: z.number(),
    to_mps: z.number().nullable(),
  }),
  worse: {
    force: 'high',
    name: { with: 'force' },
    seen: { with: 'force' },
    from_mps: 'high',
    to_mps: { worse: 'high', nothing: 'worst' },
  },
  example: { speed_mps: 9 },
  transfers: { wind_mps: (o) => o.to_mps },
  compute: ({ force, speed_mps }) => {
    if ((force === undefined) === (speed_mps === undefined)) {
      throw new Refusal(
        'force-or-speed',
        'Give either force or speed_mps, not both.',
        force === undefined ? 'speed_mps' : 'force',
      )
    }
    return beaufort(force ?? steps.findIndex((s) => s.to_mps === null || (speed_mps ?? 0) <= s.to_mps))
  },
})
