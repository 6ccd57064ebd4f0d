import type { Finding, LiftPlan, Place } from '@geolabe/core'
import { t } from '../language/t'
import { Tick } from '../look/tick'

/** Places where people walk that this load would pass over: closed while it is up, or it goes another way. */
export function ClosedAreas({
  place,
  lift,
  findings,
  onChange,
}: {
  place: Place
  lift: LiftPlan
  findings: readonly Finding[]
  onChange: (closes: string[]) => void
}) {
  const closes = lift.closes ?? []
  const passed = (id: string) => findings.some((f) => f.check === 'people' && f.subject === id && f.verdict !== 'inside')
  const areas = place.features.filter((f) => f.kind === 'people' && (closes.includes(f.id) || passed(f.id)))
  if (areas.length === 0) return null
  return (
    <fieldset className="mt-3 grid gap-1.5">
      <legend className="mb-1 font-bold">{t`Closed while the load is up`}</legend>
      {areas.map((a) => (
        <Tick
          key={a.id}
          checked={closes.includes(a.id)}
          onChange={(on) => onChange(on ? [...closes, a.id] : closes.filter((id) => id !== a.id))}
        >
          {a.label}
        </Tick>
      ))}
    </fieldset>
  )
}
