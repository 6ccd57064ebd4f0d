import type { Place, PropsPart, SetupAssessment } from '@geolabe/core'
import { findingWords } from '../language/finding-words'
import { t } from '../language/t'
import { SelectField } from '../look/field'
import { UseBar } from '../look/verdict'
import { useSay } from '../units/units'
import type { SetupDraft } from './draft'

/** Both props under the boom: what they stand on, and what the trial load puts on them and on the boom's foot. */
export function PropsSheet({
  of,
  place,
  draft: { props },
  stands,
  onChange,
}: {
  of: PropsPart
  place: Place
  draft: SetupDraft
  stands: SetupAssessment | null
  onChange: (to: Partial<SetupDraft>) => void
}) {
  const say = useSay()
  const legs = new Set(of.legs.map((l) => l.id))
  const findings = (stands?.findings ?? []).filter((f) => f.subject !== null && (legs.has(f.subject) || f.subject === 'foot'))
  return (
    <div className="grid gap-3">
      <SelectField
        label={t`Under both props`}
        value={props.mat ?? ''}
        options={[{ value: '', label: t`Nothing, their own feet` }, ...place.mats.map((m) => ({ value: m.id, label: m.label }))]}
        onChange={(mat) => onChange({ props: { ...props, mat: mat || null } })}
      />
      <SelectField
        label={t`Ground under them`}
        value={props.ground ?? ''}
        options={[
          { value: '', label: t`As the place’s plan has it` },
          ...place.ground.map((g) => ({ value: g.id, label: g.label })),
        ]}
        onChange={(ground) => onChange({ props: { ...props, ground: ground || null } })}
      />
      {findings.map((f) => (
        <div key={f.id}>
          {f.utilisation !== null && <UseBar verdict={f.verdict} share={f.utilisation} />}
          <p className="mt-1">
            <strong>{findingWords(f, say).title}</strong>: {findingWords(f, say).what}
          </p>
        </div>
      ))}
      <p className="text-quiet">{t`They carry more than the load: the boom’s foot pulls the frame up. Straight up and down only.`}</p>
    </div>
  )
}
