import type { LiftPlan, Place } from '@geolabe/core'
import { t } from '../language/t'
import { SelectField, TextField } from '../look/field'
import { loadOf } from './load-of'
import { MassFields } from './mass-fields'

type Load = LiftPlan['hung']['load']

/** What waits at a place under the name of this load; nothing: nobody has listed it. */
export const waitsAt = (place: Place, load: Load) => place.loads.find((l) => l.label === load.name)

/** A load that waits here, or something else by a name of its own. */
export function LoadChoice({
  place,
  load,
  label = t`What is lifted`,
  onLoad,
}: {
  place: Place
  load: Load
  label?: string | undefined
  onLoad: (load: Load) => void
}) {
  const waits = waitsAt(place, load)
  return (
    <>
      <SelectField
        label={label}
        value={waits?.id ?? ''}
        options={[...place.loads.map((l) => ({ value: l.id, label: l.label })), { value: '', label: t`Something else` }]}
        onChange={(id) => onLoad(loadOf(place.loads.find((l) => l.id === id)))}
      />
      {!waits && <TextField label={t`Its name`} value={load.name} onChange={(name) => onLoad({ ...load, name })} />}
    </>
  )
}

/** The same with what it weighs and how that is known; who knows it, where nobody has said. */
export function LoadFields({ place, load, label, onLoad }: Parameters<typeof LoadChoice>[0]) {
  const ask = load.mass_kg === null ? waitsAt(place, load)?.ask : undefined
  return (
    <>
      <LoadChoice place={place} load={load} {...(label ? { label } : {})} onLoad={onLoad} />
      <MassFields load={load} onChange={(to) => onLoad({ ...load, ...to })} {...(ask ? { hint: t`Ask: ${ask}` } : {})} />
    </>
  )
}
