import { governingOf, groundAt, type OutriggerCrane, type Place, type SetupAssessment } from '@geolabe/core'
import { findingWords } from '../language/finding-words'
import { t } from '../language/t'
import { Tick } from '../look/tick'
import { UseBar } from '../look/verdict'
import { useSay } from '../units/units'
import type { SetupDraft } from './draft'
import { GroundField } from './ground-field'

/** Of axles, tyres and floor the worst each: the others are no worse. */
const shown = ['axle', 'wheel', 'floor'] as const

/** On its wheels: the floor under them, the tyres, and what both axles carry. */
export function WheelSheet({
  machine,
  place,
  draft,
  stands,
  onChange,
}: {
  machine: OutriggerCrane
  place: Place
  draft: SetupDraft
  stands: SetupAssessment | null
  onChange: (to: Partial<SetupDraft>) => void
}) {
  const say = useSay()
  const lies = groundAt(place, draft.position, { x_m: 0, y_m: 0 })
  const findings = shown.flatMap((check) => governingOf((stands?.findings ?? []).filter((f) => f.check === check)) ?? [])
  return (
    <div className="grid gap-3">
      <GroundField
        label={t`Floor or deck under the wheels`}
        place={place}
        value={draft.underWheels ?? lies}
        onChange={(underWheels) => onChange({ underWheels })}
      />
      <Tick
        checked={draft.tyresChecked}
        onChange={(tyresChecked) => onChange({ tyresChecked })}
        note={t`All of one axle alike.`}
      >{t`Tyres looked at, pressures read`}</Tick>
      {findings.map((f) => (
        <div key={f.id}>
          {f.utilisation !== null && <UseBar verdict={f.verdict} share={f.utilisation} />}
          <p className="mt-1">{findingWords(f, say).what}</p>
        </div>
      ))}
      <p className="text-quiet">
        {machine.wheels?.axles.map((a) => t`${a.label}: ${say('mass', a.rating_kg)} by its plate`).join(' · ')}
      </p>
    </div>
  )
}
