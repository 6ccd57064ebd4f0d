import { feature, type Place, position } from '@geolabe/core'
import { z } from 'zod'
import { clientId, maybeWords, type PersonRef, words } from './common'

/** What stands and lies at a place, and where machines are set up there. */
export const placeDrawing = z.strictObject({
  features: z.array(feature).max(500, 'At most 500 features.'),
  positions: z.array(position).min(1, 'Keep at least one stand.').max(200),
})
export type PlaceDrawing = z.infer<typeof placeDrawing>

/** A place drawn anew, over the revision that was seen; it counts once a second person has checked it. */
export const drawPlaceRequest = z.strictObject({ id: clientId, from: z.int().min(1), why: words, drawing: placeDrawing })
export type DrawPlaceRequest = z.input<typeof drawPlaceRequest>

/** It was looked at where it lies: it is so, or it is not. */
export const checkDrawingRequest = z
  .strictObject({ id: clientId, ok: z.boolean(), words: maybeWords })
  .refine((b) => b.ok || b.words !== '', { path: ['words'], message: 'Say what is not so.' })
export type CheckDrawingRequest = z.input<typeof checkDrawingRequest>

export interface DrawnBefore {
  id: string
  revision: number | null
  why: string
  drawnBy: PersonRef
  drawnAt: string
  state: 'open' | 'taken' | 'returned' | 'replaced'
  checkedBy: PersonRef | null
  words: string
}

/** A place as it counts, the drawing that waits for a second person, and what was drawn before. */
export interface DrawingPage {
  place: Place
  revision: number
  waiting: (DrawnBefore & { from: number; drawing: PlaceDrawing }) | null
  before: DrawnBefore[]
}
