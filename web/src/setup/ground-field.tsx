import type { Place } from '@geolabe/core'
import { t } from '../language/t'
import { SelectField } from '../look/field'

/** One of the kinds of ground of a place; without a choice what lies where nothing else is drawn. */
export const GroundField = ({
  label = t`Ground`,
  place,
  value,
  onChange,
}: {
  label?: string
  place: Place
  value: string | null | undefined
  onChange: (ground: string) => void
}) => (
  <SelectField
    label={label}
    value={value ?? place.defaultGround}
    options={place.ground.map((g) => ({ value: g.id, label: g.label }))}
    onChange={onChange}
  />
)
