import type { Crew, LiftPlan } from '@geolabe/core'
import { t } from '../language/t'
import { Tick } from '../look/tick'
import { alone, Stands } from './crew-panel'

/** Who walks along beside a load; and, where sight counts, whether they hear one another. */
export function CrewSheet({
  lift,
  setLift,
  hint,
  radio = false,
}: {
  lift: LiftPlan
  setLift: (to: (lift: LiftPlan) => LiftPlan) => void
  hint: string
  radio?: boolean
}) {
  const crew = lift.crew ?? alone
  const set = (to: Partial<Crew>) => setLift((now) => ({ ...now, crew: { ...crew, ...to } }))
  return (
    <div className="grid gap-3">
      <p className="text-quiet">{hint}</p>
      <Stands stands={crew.stands ?? []} onChange={(stands) => set({ stands })} />
      {radio && (
        <Tick
          checked={crew.told === 'radio'}
          onChange={(on) => set({ told: on ? 'radio' : undefined })}
        >{t`All on one radio, tried`}</Tick>
      )}
    </div>
  )
}
