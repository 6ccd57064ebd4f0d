import type { Place } from '@geolabe/core'
import { useState } from 'react'
import { call, newId } from '../api/client'
import { queryClient } from '../api/me'
import { t } from '../language/t'
import { FileButton } from '../look/file-button'
import { Refused } from '../look/page'

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
    <section aria-label={t`The drawing of this place`} className="grid gap-2 border-t border-line pt-3">
      <p className="text-quiet">{t`What is drawn here goes out and comes in as GeoJSON, in metres of this place.`}</p>
      <div className="flex flex-wrap gap-2">
        <a
          className="inline-flex min-h-12 items-center rounded-lg border-2 border-edge px-4 font-semibold"
          href={`/api/places/${place.id}/features.geojson`}
          download={`${place.id}.geojson`}
        >{t`GeoJSON`}</a>
        {may && (
          <FileButton
            accept=".geojson,.json,application/geo+json,application/json"
            onFile={(f) => void take(f)}
          >{t`Take from a file`}</FileButton>
        )}
      </div>
      <Refused error={error} />
    </section>
  )
}
