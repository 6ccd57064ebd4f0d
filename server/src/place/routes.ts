import { geojsonToPlace, placeFeatures, placeToGeojson, setPolicyRequest } from '@geolabe/contract'
import { Router } from 'express'
import type { Database } from '../db/database'
import { reads, requireAnyRole, writes } from '../http/routes'
import { placeInUse, placeNamed, readPlaces, revisePlace } from '../library/place'
import { readPolicies, setPolicy } from './policies'

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
      const stands = await placeInUse(tx, String(req.params.id))
      const place = geojsonToPlace(file, stands.document)
      const revision = await revisePlace(tx, stands, place)
      await tx.journal('place-drawn', place.id, { revision, features: place.features.length })
      return place
    }),
  )
  router.get(
    '/places/:id/policies',
    reads(db, (tx, req) => readPolicies(tx, String(req.params.id))),
  )
  router.post(
    '/places/:id/policies',
    writes(db, setPolicyRequest, (tx, b, req) => setPolicy(tx, String(req.params.id), b)),
  )
  return router
}
