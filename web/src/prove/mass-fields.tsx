import type { LiftPlan, MassSource } from '@geolabe/core'
import { t } from '../language/t'
import { SelectField, TolField } from '../look/field'
import { massSources } from './inputs'

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
