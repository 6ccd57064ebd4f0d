import { randomUUID } from 'node:crypto'
import {
  checkDrawingRequest,
  drawPlaceRequest,
  geojsonToPlace,
  placeFeatures,
  placeToGeojson,
  setPolicyRequest,
} from '@geolabe/contract'
import { Router } from 'express'
import type { Database } from '../db/database'
import { reads, writes } from '../http/routes'
import { placeInUse, placeNamed, readPlaces } from '../library/place'
import { check, draw, readDrawings } from './drawings'
import { readPolicies, setPolicy } from './policies'

/** The places of an organisation; what stands there goes out and comes in as GeoJSON in local metres. */
export function placeRoutes(db: Database): Router {
  const router = Router()
  router.get('/places', reads(db, readPlaces))
  router.get(
    '/places/:id/features.geojson',
    reads(db, async (tx, req) => placeToGeojson(await placeNamed(tx, String(req.params.id)))),
  )
  router.get(
    '/places/:id/drawing',
    reads(db, (tx, req) => readDrawings(tx, String(req.params.id))),
  )
  router.post(
    '/places/:id/drawing',
    writes(db, drawPlaceRequest, (tx, b, req) => draw(tx, String(req.params.id), b)),
  )
  router.post(
    '/places/:id/drawing/check',
    writes(db, checkDrawingRequest, (tx, b, req) => check(tx, String(req.params.id), b)),
  )
  router.post(
    '/places/:id/features',
    writes(db, placeFeatures, async (tx, file, req) => {
      const id = String(req.params.id)
      const { document, revision } = await placeInUse(tx, id)
      const { features, positions } = geojsonToPlace(file, document)
      return draw(tx, id, { id: randomUUID(), from: revision, why: 'Taken from a file', drawing: { features, positions } })
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
