import { plainBounds } from '@geolabe/core'
import { zodResolver } from '@hookform/resolvers/zod'
import type { FormEventHandler, ReactNode } from 'react'
import {
  type Control,
  type DefaultValues,
  type FieldPath,
  type FieldValues,
  type UseFormReturn,
  useController,
  useForm,
} from 'react-hook-form'
import type { z } from 'zod'
import { TextField } from './field'

type Entered<S extends z.ZodType<FieldValues, FieldValues>> = UseFormReturn<z.input<S>, unknown, z.output<S>>

/**
 * A form of one of the contract's requests: what is missing or cannot be is said beside its field, from the first try on; what was
 * typed stays, and the first such field is gone to.
 */
export function useEntry<S extends z.ZodType<FieldValues, FieldValues>>(schema: S, first: DefaultValues<z.input<S>>): Entered<S> {
  return useForm<z.input<S>, unknown, z.output<S>>({
    resolver: zodResolver(schema, { error: plainBounds }),
    defaultValues: first,
    reValidateMode: 'onChange',
  })
}

export function Form({
  onSubmit,
  children,
  className = 'grid gap-3',
}: {
  onSubmit: FormEventHandler
  children: ReactNode
  className?: string
}) {
  return (
    <form noValidate onSubmit={onSubmit} className={className}>
      {children}
    </form>
  )
}

export interface Field<T extends FieldValues, Out> {
  control: Control<T, unknown, Out>
  name: FieldPath<T>
  label: string
}

export function TextEntry<T extends FieldValues, Out>({
  control,
  name,
  ...rest
}: Field<T, Out> & Omit<Parameters<typeof TextField>[0], 'value' | 'onChange' | 'error' | 'inputRef'>) {
  const { field, fieldState } = useController({ control, name })
  return (
    <TextField
      {...rest}
      value={field.value ?? ''}
      onChange={field.onChange}
      inputRef={field.ref}
      error={fieldState.error?.message}
    />
  )
}
