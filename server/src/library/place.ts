import type { Place } from '@geolabe/core'
import type { Tx } from '../db/database'
import { documentOf } from './documents'

export async function readPlaces(tx: Tx): Promise<{ places: Place[] }> {
  const r = await tx.query<{ document: Place }>('select document from place order by id limit 500')
  return { places: r.rows.map((x) => x.document) }
}

/** A place as it stands, with the revision that a record names. */
export const placeInUse = (tx: Tx, id: string): Promise<{ document: Place; revision: number }> =>
  documentOf<Place>(tx, 'place', id, 'This place')

export const placeNamed = async (tx: Tx, id: string): Promise<Place> => (await placeInUse(tx, id)).document
