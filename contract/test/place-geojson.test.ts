import { Refusal } from '@geolabe/core'
import { describe, expect, it } from 'vitest'
import { northQuay } from '../../core/test/demo'
import { geojsonToPlace, placeFeatures, placeToGeojson } from '../src'

describe('a place as GeoJSON', () => {
  it('comes back as it went out', () => {
    const out = placeFeatures.parse(JSON.parse(JSON.stringify(placeToGeojson(northQuay))))
    expect(geojsonToPlace(out, northQuay)).toEqual(northQuay)
  })
  it('closes its rings, as that format has it', () => {
    for (const { geometry } of placeToGeojson(northQuay).features)
      if (geometry.type === 'Polygon') for (const ring of geometry.coordinates) expect(ring.at(-1)).toEqual(ring[0])
  })
  it('in degrees, with holes, without ids, or with what no place has, is refused by field', () => {
    const good = placeToGeojson(northQuay)
    const { frame: _, ...degrees } = good
    expect(placeFeatures.safeParse(degrees).error?.issues[0]?.path).toEqual(['frame'])
    const [first] = good.features
    if (!first) throw new Error('no feature')
    const broken = (to: object) => placeFeatures.safeParse({ ...good, features: [{ ...first, ...to }] }).success
    expect(broken({ id: undefined })).toBe(false)
    expect(broken({ geometry: { type: 'Point', coordinates: [0, 0] } })).toBe(false)
    const ring = [
      [0, 0],
      [1, 0],
      [1, 1],
      [0, 0],
    ]
    expect(broken({ geometry: { type: 'Polygon', coordinates: [ring, ring] } })).toBe(false)
    expect(broken({ geometry: { type: 'Polygon', coordinates: [ring] } })).toBe(true)
    // No corner is lost for want of the closing one.
    expect(broken({ geometry: { type: 'Polygon', coordinates: [[...ring.slice(0, 3), [0, 1]]] } })).toBe(false)
    const odd = placeFeatures.parse({ ...good, features: [{ ...first, properties: { ...first.properties, kind: 'cloud' } }] })
    expect(() => geojsonToPlace(odd, northQuay)).toThrow(Refusal)
    try {
      geojsonToPlace(odd, northQuay)
    } catch (e) {
      expect((e as Refusal).path).toBe('features.0.kind')
    }
  })
})
