import { z } from 'zod'
import { finite, positive } from '../quantity/measured'

/** From where the operator looks: a seat that turns with the boom or stays with the carrier; or on foot, with a remote. */
export const eyePart = z.discriminatedUnion('on', [
  z.strictObject({
    on: z.enum(['upper', 'chassis']),
    /** Ahead of the slew centre, to the left of it, above the ground. */
    x_m: finite,
    y_m: finite,
    z_m: positive,
    /** Its head carries a camera that looks down on the load. */
    camera: z.literal(true).optional(),
  }),
  z.strictObject({
    on: z.literal('foot'),
    z_m: positive,
    /** As far as the remote works, by its book. */
    range_m: positive.optional(),
    camera: z.literal(true).optional(),
  }),
])
export type EyePart = z.infer<typeof eyePart>

interface Lift {
  crew?: { posts?: readonly unknown[] | undefined } | undefined
}

/** Is there an eye to ask of: a seat, or a place that the operator stands at? */
export const looksFrom = ({ eye }: { eye?: EyePart | undefined }, { crew }: Lift): boolean =>
  eye !== undefined && (eye.on !== 'foot' || (crew?.posts?.length ?? 0) > 0)
