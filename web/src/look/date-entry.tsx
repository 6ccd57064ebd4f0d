import { type FieldValues, useController } from 'react-hook-form'
import { DateField } from './date-field'
import type { Field } from './form'

/** A day in a form. */
export function DateEntry<T extends FieldValues, Out>({ control, name, label }: Field<T, Out>) {
  const { field, fieldState } = useController({ control, name })
  return (
    <DateField
      label={label}
      value={field.value ?? null}
      onChange={field.onChange}
      inputRef={field.ref}
      error={fieldState.error?.message}
    />
  )
}
