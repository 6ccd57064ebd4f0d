import { type Feature, type Place, parseOrRefuse, placeDefinition } from '@geolabe/core'
import { z } from 'zod'

const at = z.tuple([z.number(), z.number()]).rest(z.number())
const ring = z
  .array(at)
  .min(4, 'A ring has three corners at least, and its first once more.')
  .refine((r) => r[0]?.[0] === r.at(-1)?.[0] && r[0]?.[1] === r.at(-1)?.[1], 'A ring ends where it began.')
const geojsonFeature = z.object({
  type: z.literal('Feature'),
  id: z.string().min(1, 'Give each feature an id of its own.'),
  geometry: z.discriminatedUnion(
    'type',
    [
      z.object({
        type: z.literal('Polygon'),
        coordinates: z.array(ring).length(1, 'One ring a polygon, without holes.'),
      }),
      z.object({ type: z.literal('LineString'), coordinates: z.array(at).min(2) }),
    ],
    'A Polygon or a LineString.',
  ),
  properties: z.record(z.string(), z.unknown()),
})

/**
 * What stands and lies at a place, shaped as GeoJSON but in metres of the place's own frame, which the member `frame` says: a file
 * in degrees is refused.
 */
export const placeFeatures = z.object({
  type: z.literal('FeatureCollection', 'A FeatureCollection.'),
  frame: z.literal('local-metres', 'Local metres, said as "frame": "local-metres"; degrees are not taken.'),
  features: z.array(geojsonFeature).max(500, 'At most 500 features.'),
})
export type PlaceFeatures = z.infer<typeof placeFeatures>

type Pair = [number, number]

function geometryOf({ type, points }: Feature['geometry']): PlaceFeatures['features'][number]['geometry'] {
  const coordinates = points.map(([x, y]): Pair => [x, y])
  if (type === 'LineString') return { type, coordinates }
  const [first] = coordinates
  return { type, coordinates: [first ? [...coordinates, first] : coordinates] }
}

/** What stands and lies at a place, for other programs. */
export const placeToGeojson = ({ features }: Place): PlaceFeatures => ({
  type: 'FeatureCollection',
  frame: 'local-metres',
  features: features.map(({ id, geometry, ...properties }) => ({
    type: 'Feature',
    id,
    geometry: geometryOf(geometry),
    properties,
  })),
})

/**
 * A place with the features of a file in place of its own; everything else stays. All or nothing.
 *
 * @throws Refusal naming the feature and field that cannot be
 */
export function geojsonToPlace({ features }: PlaceFeatures, into: Place): Place {
  return parseOrRefuse(placeDefinition, {
    ...into,
    features: features.map(({ id, geometry, properties }) => {
      const points: Pair[] = (geometry.type === 'Polygon' ? (geometry.coordinates[0] ?? []) : geometry.coordinates).map(
        ([x, y]) => [x, y],
      )
      // The last corner of a ring is its first once more.
      return {
        ...properties,
        id,
        geometry: { type: geometry.type, points: geometry.type === 'Polygon' ? points.slice(0, -1) : points },
      }
    }),
  })
}
