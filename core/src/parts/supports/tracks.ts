import { z } from 'zod'
import { groundKind } from '../../place/place'
import { positive } from '../../quantity/measured'

/** Two tracks: how long they bear, how wide each is, and between their middle lines. */
export const tracksPart = z.strictObject({ length_m: positive, width_m: positive, gauge_m: positive })
export type TracksPart = z.infer<typeof tracksPart>

/** On its tracks, as a set-up plan has it; the ground under them, null: not known. */
export const onTracks = z.strictObject({
  on: z.literal('tracks'),
  state: z.string().min(1).optional(),
  ground: groundKind.nullable(),
})
export type OnTracks = z.infer<typeof onTracks>

/** Over the ends of its tracks and over their middle lines it would tip: never over their outer edges. */
export const trackContacts = ({ length_m, gauge_m }: TracksPart) => [
  { id: 'FL', x_m: length_m / 2, y_m: gauge_m / 2 },
  { id: 'FR', x_m: length_m / 2, y_m: -gauge_m / 2 },
  { id: 'RL', x_m: -length_m / 2, y_m: gauge_m / 2 },
  { id: 'RR', x_m: -length_m / 2, y_m: -gauge_m / 2 },
]
