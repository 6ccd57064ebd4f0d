import type { LiftPlan, MassSource } from '@geolabe/core'
import { t } from '../language/t'
import { SelectField, TolField } from '../look/field'

/** How a mass can be known; nobody knows it is an answer too. */
export const massSources: { value: MassSource | ''; label: string }[] = [
  { value: '', label: t`Nobody knows yet` },
  { value: 'marked', label: t`Marked on it` },
  { value: 'document', label: t`From its document` },
  { value: 'worked-out', label: t`Worked out from its size` },
  { value: 'weighed', label: t`Weighed` },
  { value: 'asked', label: t`Asked of who knows it` },
]

type Load = LiftPlan['hung']['load']

/** What something weighs, and how that is known. */
export function MassFields({
  label = t`Mass`,
  hint,
  load,
  onChange,
}: {
  label?: string
  hint?: string
  load: Load
  onChange: (to: Pick<Load, 'mass_kg'> | Pick<Load, 'massSource'>) => void
}) {
  return (
    <>
      <TolField
        label={label}
        quantity="mass"
        value={load.mass_kg}
        least={1}
        onChange={(mass_kg) => onChange({ mass_kg })}
        {...(hint ? { hint } : {})}
      />
      <SelectField
        label={t`How the mass is known`}
        value={load.massSource ?? ''}
        options={massSources}
        onChange={(s) => onChange({ massSource: s === '' ? null : (s as MassSource) })}
      />
    </>
  )
}
