import { z } from 'zod'
import { notNegative, positive } from '../quantity/measured'

/** A beam over two towers, by their ids. */
const header = z.strictObject({ label: z.string().min(1), left: z.string().min(1), right: z.string().min(1) })
const footing = z.strictObject({ length_m: positive, width_m: positive })

/** How its towers stand and what lies over them: without it only its stages are known. */
const standPart = z.strictObject({
  /** Two beams over the towers, each over two of them. */
  headers: z.strictObject({ front: header, rear: header }),
  /** One header, half of it on each of its towers. */
  header_kg: notNegative,
  /** What hangs on one header, by its mark. */
  headerRating_kg: positive,
  /** A tower by itself, which its footing carries too. */
  tower_kg: notNegative,
  footing,
  /** How far its track may fall, along and across, per cent. */
  level_pct: positive,
  /** Pushed sideways by no more than so much of what it carries. */
  sideLoad_share: positive,
  /** How hard it stops on its track. */
  stop_mps2: notNegative,
  /** Barriers stand so far off its towers and what hangs between them, by its papers. */
  barriers_m: positive,
  /** As far as it travels on its track. */
  track_m: positive,
  /** What is confirmed where statics does not say that it stands: its papers. */
  papersEvidence: z.string().min(1),
})

/** Towers that are raised in stages, each by a cylinder of its own. */
export const gantryPart = z.strictObject({
  towers: z.int().min(2).max(16),
  working_kPa: positive,
  share: positive.max(1, 'At most 1.'),
  stages: z.array(z.strictObject({ upTo_m: positive, piston_m2: positive })).min(1),
  stand: standPart.optional(),
})
type Part = z.infer<typeof gantryPart>
export type GantryPart = Part & { stand: NonNullable<Part['stand']> }

/** The towers by their ids, the front header's first. */
export const towersOf = ({ stand: { headers } }: GantryPart): string[] =>
  [headers.front, headers.rear].flatMap((h) => [h.left, h.right])
