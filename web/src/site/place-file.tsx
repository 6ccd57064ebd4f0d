import type { Place } from '@geolabe/core'
import { useState } from 'react'
import { call, newId } from '../api/client'
import { queryClient } from '../api/me'
import { Refused } from '../look/page'

const look = 'inline-flex min-h-12 items-center rounded-lg border-2 px-4 font-semibold'

/** What stands at a place, out for other programs, and in again as a new revision by those who may. */
export function PlaceFile({ place, may }: { place: Place; may: boolean }) {
  const [error, setError] = useState<unknown>(null)
  const take = async (file: File) => {
    setError(null)
    try {
      const body: unknown = JSON.parse(await file.text())
      await call<Place>({ method: 'POST', path: `/places/${place.id}/features`, body, key: newId() })
      await queryClient.invalidateQueries({ queryKey: ['places'] })
    } catch (e) {
      setError(e instanceof SyntaxError ? new Error('This file is no JSON. Choose the GeoJSON file of a place.') : e)
    }
  }
  return (
    <section aria-label="The drawing of this place" className="grid gap-2 border-t border-line pt-3">
      <p className="text-quiet">What is drawn here goes out and comes in as GeoJSON, in metres of this place.</p>
      <div className="flex flex-wrap gap-2">
        <a className={`${look} border-edge`} href={`/api/places/${place.id}/features.geojson`} download={`${place.id}.geojson`}>
          GeoJSON
        </a>
        {may && (
          <label className={`${look} cursor-pointer border-ink focus-within:outline-3`}>
            Take from a file
            <input
              type="file"
              accept=".geojson,.json,application/geo+json,application/json"
              className="sr-only"
              onChange={(e) => {
                const f = e.target.files?.[0]
                e.target.value = ''
                if (f) void take(f)
              }}
            />
          </label>
        )}
      </div>
      <Refused error={error} />
    </section>
  )
}
