import { z } from 'zod'
import { finite, notNegative, positive } from '../../quantity/measured'

const corner = z.strictObject({ id: z.string().min(1), label: z.string().min(1), x_m: finite, y_m: finite })

/** A frame on wheels that stands astride its load: without it only its lines are known. */
export const straddlePart = z.strictObject({
  own_kg: positive,
  cgHeight_m: positive,
  /** From its middle: x ahead, y to the left; in order round. */
  wheels: z.array(corner).length(4, 'It stands on four wheels.'),
  tyre_N: positive,
  tyreWidth_m: positive,
  /** From where its operator looks: ahead of its middle, to the left, above the ground. */
  eye: z.strictObject({ x_m: finite, y_m: finite, z_m: positive }),
  /** A wheel on a building's floor counts so many times. */
  floorFactor: positive,
  /** How far it twists freely, by whose book: its four wheels then carry as on an even, elastic ground. */
  twist: z.strictObject({ mm: positive, source: z.string().min(1) }).optional(),
  /** What its slings hang from: how high, how far apart from side to side, as far as they go to the front and the rear. */
  beams: z.strictObject({ height_m: positive, apart_m: positive, rear_m: finite, front_m: finite, leastBetween_m: positive }),
  /** One end of what it carries may hang so much over the other. */
  level_m: positive.optional(),
  /** Its own frame in the wind. */
  sail: z.strictObject({ area_m2: notNegative, drag: positive, height_m: notNegative }),
  width_m: positive,
  height_m: positive,
  /** How steep it may drive and stand, along and across, per cent. */
  grades: z.strictObject({ along_pct: positive, cross_pct: positive }),
  braking_mps2: positive,
})

/** Several hoists on one frame. */
export const hoistsPart = z.strictObject({
  each: z
    .array(z.strictObject({ id: z.string().min(1), label: z.string().min(1), linePull_N: positive, parts: z.int().min(1) }))
    .min(1),
  sheaveEfficiency: positive.max(1, 'At most 1.'),
  /** Sheaves between drum and block; none where the rope falls straight from the drum. */
  leadSheaves: z.int().min(0),
  /** What its frame bears. */
  frame_kg: positive,
  straddle: straddlePart.optional(),
})
type Part = z.infer<typeof hoistsPart>
export type StraddlePart = Part & { straddle: NonNullable<Part['straddle']> }
