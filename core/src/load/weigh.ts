import { z } from 'zod'
import { defineCalculator } from '../calculator/define'
import { g_mps2 } from '../physics'
import { measured, measuredNotNegative, measuredPositive } from '../quantity/measured'
import { Refusal } from '../refusal'

/** One end just clear: what the display shows, where it is picked and over which edge it still stands, metres along the load. */
export interface Pick {
  shown_kg: number
  pickedAt_m: number
  standsAt_m: number
}

/**
 * Mass of a load that is too heavy or too doubtful to lift whole, from one end lifted just clear and then the other: moments about the
 * edge that it stands on, F₁(p₁ − s₁) = m(c − s₁) and F₂(p₂ − s₂) = m(c − s₂). Picked over the other’s edge each time, it is F₁ + F₂.
 *
 * @param inReading_kg hangs on the hook and is in both readings
 * @throws Refusal `same-edge`, `picked-inside`, `no-weight` with the field that is to be put right
 * @example weighByEnds(
 *   { shown_kg: 1900, pickedAt_m: 4, standsAt_m: 0 }, { shown_kg: 1300, pickedAt_m: 0, standsAt_m: 4 }, 100) // { mass_kg: 3000, cg_m: 2.4 }
 */
export function weighByEnds(first: Pick, second: Pick, inReading_kg: number): { mass_kg: number; cg_m: number } {
  const apart_m = second.standsAt_m - first.standsAt_m
  if (Math.abs(apart_m) < 0.01)
    throw new Refusal(
      'same-edge',
      'It stood on the same edge both times; lift the other end the second time.',
      'second.standsAt_m',
    )
  const turned = (pick: Pick, side: number, field: string) => {
    const arm_m = pick.pickedAt_m - pick.standsAt_m
    if (!(arm_m * side > 0))
      throw new Refusal('picked-inside', 'Pick it on the far side from the edge that it stands on.', `${field}.pickedAt_m`)
    const held_kg = pick.shown_kg - inReading_kg
    if (!(held_kg > 0))
      throw new Refusal(
        'no-weight',
        'The display shows no more than the rigging; lift until this end is just clear.',
        `${field}.shown_kg`,
      )
    return held_kg * arm_m
  }
  const side = Math.sign(apart_m)
  const [one, other] = [turned(first, side, 'first'), turned(second, -side, 'second')]
  const mass_kg = (one - other) / apart_m
  return { mass_kg, cg_m: first.standsAt_m + one / mass_kg }
}

const pick = z.strictObject({ shown_kg: measuredPositive, pickedAt_m: measured, standsAt_m: measured })

export const endsWeightCalculator = defineCalculator({
  name: 'ends-weight',
  purpose: 'What a load weighs and where its centre of gravity is, from one end lifted just clear, and then the other.',
  source: 'Moments about the edge that the load stands on: F₁(p₁ − s₁) = m(c − s₁), F₂(p₂ − s₂) = m(c − s₂).',
  cautions: [
    'Lift each end a hand’s width, no more: a load that leans moves its centre of gravity towards the edge.',
    'Hook straight over the lift point; nobody beside the load, nothing under it.',
    'Stop when the display nears what the table allows for one end; it may slide, so chock the edge that it stands on.',
    'Give the display’s own ±; where it was zeroed with something on the hook, add that.',
  ],
  input: z.strictObject({
    first: pick,
    second: pick,
    /** Block, slings and whatever else the display weighs that is not the load. */
    inReading_kg: measuredNotNegative,
  }),
  output: z.object({ mass_kg: z.number(), cg_m: z.number() }),
  worse: { mass_kg: 'high', cg_m: 'either' },
  example: {
    first: { shown_kg: { value: 1950, tolerance: 60 }, pickedAt_m: 3.8, standsAt_m: 0 },
    second: { shown_kg: { value: 1420, tolerance: 60 }, pickedAt_m: 0.2, standsAt_m: 4 },
    inReading_kg: 115,
  },
  transfers: { mass_kg: (o) => o.mass_kg },
  compute: ({ first, second, inReading_kg }) => weighByEnds(first, second, inReading_kg),
})

/** What a point carries, kilograms, from a scale or from the pressure under a piston; null: neither is whole. */
function carried_kg(at: {
  empty_kg?: number | undefined
  loaded_kg?: number | undefined
  piston_m2?: number | undefined
  emptyPressure_kPa?: number | undefined
  loadedPressure_kPa?: number | undefined
}): number | null {
  const byScale = at.empty_kg !== undefined && at.loaded_kg !== undefined ? at.loaded_kg - at.empty_kg : null
  const byPressure =
    at.piston_m2 !== undefined && at.emptyPressure_kPa !== undefined && at.loadedPressure_kPa !== undefined
      ? ((at.loadedPressure_kPa - at.emptyPressure_kPa) * 1000 * at.piston_m2) / g_mps2
      : null
  return byScale !== null && byPressure !== null ? null : (byScale ?? byPressure)
}

export const supportsWeightCalculator = defineCalculator({
  name: 'supports-weight',
  purpose:
    'What a load weighs and where its centre of gravity is, from what supports, axles or towers carry with it and without.',
  source: 'Statics: m = Σ(loaded − empty), x̄ = Σ(loaded − empty)·x/m; p·A/g under a piston.',
  cautions: [
    'Level, standing still and free of the ground; nothing else added, used up or moved between the two readings.',
    'A cylinder rubs: read it creeping up and creeping down, and give what lies between as ±.',
    'Read pressure on the cylinder’s side of its holding valve.',
    'A point that is left out makes the load lighter than it is.',
  ],
  input: z.strictObject({
    points: z
      .array(
        z.strictObject({
          id: z.string().min(1),
          x_m: measured,
          y_m: measured,
          empty_kg: measuredNotNegative.optional(),
          loaded_kg: measuredNotNegative.optional(),
          piston_m2: measuredPositive.optional(),
          emptyPressure_kPa: measuredNotNegative.optional(),
          loadedPressure_kPa: measuredNotNegative.optional(),
        }),
      )
      .min(1, 'Give at least one point.')
      .max(16),
  }),
  output: z.object({
    mass_kg: z.number(),
    cg: z.object({ x_m: z.number(), y_m: z.number() }),
    points: z.array(z.object({ id: z.string(), added_kg: z.number() })),
  }),
  worse: {
    mass_kg: 'high',
    'cg.x_m': 'either',
    'cg.y_m': 'either',
    points: { rows: 'id' },
    'points.*.id': 'given',
    'points.*.added_kg': 'either',
  },
  example: {
    points: [
      { id: 'front axle', x_m: 0, y_m: 0, empty_kg: 3900, loaded_kg: { value: 7150, tolerance: 40 } },
      { id: 'rear axle', x_m: -2.1, y_m: 0, empty_kg: 4600, loaded_kg: { value: 3350, tolerance: 40 } },
    ],
  },
  transfers: { mass_kg: (o) => o.mass_kg },
  compute: ({ points }) => {
    const seen = new Set<string>()
    const added = points.map((p, i) => {
      if (seen.has(p.id)) throw new Refusal('twice', `Two points are called “${p.id}”; give each its own name.`, `points.${i}.id`)
      seen.add(p.id)
      const added_kg = carried_kg(p)
      if (added_kg === null)
        throw new Refusal(
          'scale-or-pressure',
          'Give either empty and loaded mass, or piston area with empty and loaded pressure.',
          `points.${i}`,
        )
      return { ...p, added_kg }
    })
    const mass_kg = added.reduce((sum, p) => sum + p.added_kg, 0)
    if (!(mass_kg > 0))
      throw new Refusal('no-weight', 'Loaded, the points carry no more than empty; look whether readings were swapped.', 'points')
    const centre = (place: (p: { x_m: number; y_m: number }) => number) =>
      added.reduce((sum, p) => sum + p.added_kg * place(p), 0) / mass_kg
    return {
      mass_kg,
      cg: { x_m: centre((p) => p.x_m), y_m: centre((p) => p.y_m) },
      points: added.map(({ id, added_kg }) => ({ id, added_kg })),
    }
  },
})
