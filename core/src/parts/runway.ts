import { z } from 'zod'
import { measured, notNegative, positive } from '../quantity/measured'

/** How it hangs and travels, positions from the support that is away from the overhang: without it only its marks are known. */
const travelPart = z.strictObject({
  /** The beam by its place's name. */
  beam: z.string().min(1),
  label: z.string().min(1),
  /** Beyond the nearer support. */
  overhang_m: notNegative,
  mass_kg_per_m: notNegative,
  /** Hoist and trolley, which hang on the beam with every load. */
  own_kg: positive,
  /** As far as its end stops let it travel. */
  stops: z.strictObject({ from_m: notNegative, to_m: positive }),
  /** So high over the floor its chain comes out, and so far below that its hook is when the limit stops it. */
  chain_m: positive,
  hookDrop_m: positive,
  /** What is confirmed where the further support is pulled up. */
  boltsEvidence: z.string().min(1),
})

/** A hoist on a trolley under a beam. */
export const runwayPart = z.strictObject({
  falls: z.int().min(1),
  perFall_kg: positive,
  wheels: z.int().min(2),
  perWheel_kg: positive,
  beam: z.strictObject({ span_m: positive, modulus_cm3: positive, allowable_MPa: positive }),
  travel: travelPart.optional(),
})
type Part = z.infer<typeof runwayPart>
export type RunwayPart = Part & { travel: NonNullable<Part['travel']> }

/** The beam as its statics ask for it. */
export const beamOf = ({ beam: { span_m }, travel: { overhang_m, mass_kg_per_m } }: RunwayPart) => ({
  span_m,
  overhang_m,
  mass_kg_per_m,
})

/** What is marked with what it may carry; the least governs. */
export const markedParts = ['hoist', 'trolley', 'beam', 'hook'] as const
export type MarkedPart = (typeof markedParts)[number]

const mark = positive.nullable()
/** The marks as they were read, kg; null: none to be read. */
export const marksRead = z.strictObject({ hoist: mark, trolley: mark, beam: mark, hook: mark })
export type MarksRead = z.infer<typeof marksRead>

/**
 * Taken up at one place, travelled with, put down at another; hoisted where both are one. Under a beam its trolley travels; on a track the whole frame,
 * or on its headers the load to one side.
 */
export const traverseStep = z.strictObject({
  do: z.literal('traverse'),
  laden: z.boolean().default(true),
  /** What travels; left out: the trolley. */
  of: z.enum(['trolley', 'frame', 'load']).optional(),
  from_m: measured,
  to_m: measured,
})
export type TraverseStep = z.infer<typeof traverseStep>
