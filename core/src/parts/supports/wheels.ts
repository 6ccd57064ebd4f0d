import { z } from 'zod'
import { groundKind } from '../../place/place'
import { finite, positive } from '../../quantity/measured'
import type { Support } from '../../statics/footprint'
import type { BearingPoint } from './bearing-point'
import type { OutriggerSetting } from './outriggers'

/** One axle, or a group that acts as one, with its wheels alike on both sides. */
const axle = z.strictObject({
  id: z.enum(['front', 'rear']),
  label: z.string().min(1),
  /** Ahead of the slew centre. */
  x_m: finite,
  /** From the middle to the middle of the wheels of one side. */
  halfTrack_m: positive,
  /** What it may carry by the maker's plate, kg. */
  rating_kg: positive,
  /** Wheels of one side, and what each presses on the ground with. */
  wheels: z.int().min(1).max(8),
  contact_m2: positive,
  /** What the tyres of one wheel may carry standing; left out: not proven. */
  tyre_kg: positive.optional(),
})

/** What a machine rolls on. */
export const wheelsPart = z.strictObject({
  axles: z.array(axle).length(2),
  /** Of a wheel that rolls or jerks over a floor: air 1.4, solid 2.0 (EN 1991-1-1). */
  floorFactor: finite.min(1).max(3),
})
export type WheelsPart = z.infer<typeof wheelsPart>
export type Axle = WheelsPart['axles'][number]

/** Standing on its wheels, as a set-up plan has it. */
export const onWheels = z.strictObject({
  on: z.literal('wheels'),
  state: z.string().min(1).optional(),
  /** Null: nobody has said what it stands on. */
  ground: groundKind.nullable(),
  /** Tyres were looked at and their pressures read. */
  tyres: z.literal('checked').nullable(),
})

const sides = [
  ['L', 'left', 1],
  ['R', 'right', -1],
] as const

/** Corner of one axle and one side, as a bearing point and where it stands. */
export interface WheelPoint {
  point: BearingPoint
  contact: Support
  setting: OutriggerSetting
  axle: Axle
}

/** Corners of a machine on its wheels: left and right of each axle. */
export function wheelPoints({ axles }: WheelsPart, ground: OutriggerSetting['ground']): WheelPoint[] {
  return axles.flatMap((axle) =>
    sides.map(([letter, side, sign]) => {
      const id = `${axle.id === 'front' ? 'F' : 'R'}${letter}`
      const patch_m = Math.sqrt(axle.wheels * axle.contact_m2)
      return {
        axle,
        contact: { id, x_m: axle.x_m, y_m: sign * axle.halfTrack_m },
        point: {
          id,
          label: `${axle.id} ${side} wheels`,
          // Tyres have a check of their own, which knows where nothing is said about them.
          capacity_N: Number.MAX_VALUE,
          float: { length_m: patch_m, width_m: patch_m },
        },
        setting: { id, at: { stop: 'wheels' }, mat: null, ground, stroke_m: 0 },
      }
    }),
  )
}
