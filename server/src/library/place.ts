import type { Place } from '@geolabe/core'
import type { Tx } from '../db/database'
import { Problem } from '../problem/problem'
import { documentOf } from './documents'

export async function readPlaces(tx: Tx): Promise<{ places: Place[] }> {
  const r = await tx.query<{ document: Place }>('select document from place order by id limit 500')
  return { places: r.rows.map((x) => x.document) }
}

/** A place as it stands, with the revision that a record names. */
export const placeInUse = (tx: Tx, id: string): Promise<{ document: Place; revision: number }> =>
  documentOf<Place>(tx, 'place', id, 'This place')

/** Draws or rules a place anew. @throws Problem 409 where somebody else did so since it was read: nobody writes over another's work */
export async function revisePlace(tx: Tx, was: { document: Place; revision: number }, next: Place): Promise<number> {
  const r = await tx.query<{ revision: number }>(
    'update place set document = $2 where id = $1 and revision = $3 returning revision',
    [was.document.id, JSON.stringify(next), was.revision],
  )
  const revision = r.rows[0]?.revision
  if (revision === undefined)
    throw new Problem(409, 'changed-meanwhile', 'Somebody changed this place just now. Look at it again, then do it once more.')
  return revision
}

export const placeNamed = async (tx: Tx, id: string): Promise<Place> => (await placeInUse(tx, id)).document
