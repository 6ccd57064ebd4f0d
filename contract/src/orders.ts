import type { OrderChange, ProcedureFile, ProcedureFinding } from '@geolabe/core'
import { procedurePieces, procedureSource } from '@geolabe/core'
import { z } from 'zod'
import { clientId, maybeWords, type PersonRef, words } from './common'

/** An order of work written anew, over the revision that was seen; it counts once the person in charge has read it. */
export const writeOrderRequest = z.strictObject({
  id: clientId,
  from: z.int().min(0),
  why: words,
  file: procedureSource,
  pieces: procedurePieces.optional(),
})
export type WriteOrderRequest = z.input<typeof writeOrderRequest>

/** It was read: it may count, or it goes back with what is wrong. */
export const checkOrderRequest = z
  .strictObject({ id: clientId, ok: z.boolean(), words: maybeWords })
  .refine((b) => b.ok || b.words !== '', { path: ['words'], message: 'Say what is wrong with it.' })
export type CheckOrderRequest = z.input<typeof checkOrderRequest>

export interface OrderWritten {
  id: string
  revision: number | null
  why: string
  writtenBy: PersonRef
  writtenAt: string
  state: 'open' | 'taken' | 'returned' | 'replaced'
  checkedBy: PersonRef | null
  words: string
}

/** A machine's order of work as it counts, the one that waits for the person in charge with what it changes, and what was written before. */
export interface OrderPage {
  machine: string
  /** 0: the machine's own, as it came with its definition. */
  revision: number
  order: ProcedureFile
  waiting: (OrderWritten & { from: number; changes: OrderChange[]; order: ProcedureFile }) | null
  before: OrderWritten[]
}

/** What is wrong with an order of work as somebody has written it; nothing found: it may be taken in. */
export interface OrderCheck {
  findings: ProcedureFinding[]
  steps: number
  states: number
  nevers: number
}
