import type { ShiftEvent } from '@geolabe/core'
import type { Tx } from '../db/database'

type What<E> = E extends ShiftEvent ? Omit<E, 'at' | 'by'> : never

/**
 * Records what happened in a shift, and tells the journal. The database sets the moment and holds whoever is signed on to it.
 *
 * @param told what the journal says of it, beside its kind; left out: the event itself
 */
export async function record(tx: Tx, shift: string, event: What<ShiftEvent>, told?: object): Promise<void> {
  const { kind, ...body } = event
  await tx.query('insert into shift_event (org, shift, actor, kind, body) values ($1, $2, $3, $4, $5)', [
    tx.who.org,
    shift,
    tx.who.person,
    kind,
    JSON.stringify(body),
  ])
  await tx.journal(kind, shift, told ?? body)
}
