import { type FieldPath, type FieldPathValue, type FieldValues, useController } from 'react-hook-form'
import { told } from '../language/t'
import { Choice } from './choice'
import { PlainField, SelectField } from './field'
import type { Field } from './form'

/** A figure in no unit of ours: hours, seconds. What cannot be read stays in its field and is explained there. */
export function FigureEntry<T extends FieldValues, Out>({ control, name, ...rest }: Field<T, Out> & { hint?: string }) {
  const { field, fieldState } = useController({ control, name })
  return (
    <PlainField
      {...rest}
      value={field.value ?? null}
      onChange={(v) => field.onChange(v as FieldPathValue<T, FieldPath<T>>)}
      inputRef={field.ref}
      error={fieldState.error?.message}
    />
  )
}

export function SelectEntry<T extends FieldValues, Out>({
  control,
  name,
  ...rest
}: Field<T, Out> & { options: readonly { value: string; label: string }[] }) {
  const { field, fieldState } = useController({ control, name })
  return (
    <SelectField
      {...rest}
      value={field.value ?? ''}
      onChange={field.onChange}
      inputRef={field.ref}
      error={fieldState.error?.message}
    />
  )
}

export function ChoiceEntry<T extends FieldValues, Out, V extends string>({
  control,
  name,
  ...rest
}: Field<T, Out> & { options: readonly { value: V; label: string }[] }) {
  const { field, fieldState } = useController({ control, name })
  return (
    <div>
      <Choice {...rest} value={field.value ?? null} onChange={field.onChange} />
      {fieldState.error && <p className="mt-1 font-semibold text-outside">{told(fieldState.error.message ?? '')}</p>}
    </div>
  )
}
