import { geojsonToPlace, placeFeatures, placeToGeojson } from '@geolabe/contract'
import { Router } from 'express'
import type { Database } from '../db/database'
import { reads, requireAnyRole, writes } from '../http/routes'
import { placeInUse, placeNamed, readPlaces } from '../library/place'

/** The places of an organisation; what stands there goes out and comes in as GeoJSON in local metres. */
export function placeRoutes(db: Database): Router {
  const router = Router()
  router.get('/places', reads(db, readPlaces))
  router.get(
    '/places/:id/features.geojson',
    reads(db, async (tx, req) => placeToGeojson(await placeNamed(tx, String(req.params.id)))),
  )
  router.post(
    '/places/:id/features',
    writes(db, placeFeatures, async (tx, file, req) => {
      await requireAnyRole(
        tx,
        ['person-in-charge', 'administrator'],
        'What stands at a place is drawn by the person in charge or an administrator.',
      )
      const { document } = await placeInUse(tx, String(req.params.id))
      const place = geojsonToPlace(file, document)
      const r = await tx.query<{ revision: number }>('update place set document = $2 where id = $1 returning revision', [
        place.id,
        JSON.stringify(place),
      ])
      await tx.journal('place-drawn', place.id, { revision: r.rows[0]?.revision, features: place.features.length })
      return place
    }),
  )
  return router
}
