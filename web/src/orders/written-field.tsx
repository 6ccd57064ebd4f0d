import { plainIssue } from '@geolabe/core'
import { useState } from 'react'
import type { z } from 'zod'
import { t } from '../language/t'
import { TextField } from '../look/field'

interface Props<T> {
  label: string
  rows: number
  value: T
  schema: z.ZodType<T>
  onChange: (v: T) => void
}

/** A part of a file as it is written: what cannot be read yet stays as it is typed, and says why; what changes elsewhere is shown. */
export function WrittenField<T>({ label, rows, value, schema, onChange }: Props<T>) {
  const [typed, setTyped] = useState<{ text: string; of: T | null; fault: string } | null>(null)
  const mine = typed !== null && (typed.of === null || typed.of === value) ? typed : null
  const read = (text: string) => {
    try {
      const { data, error } = schema.safeParse(JSON.parse(text))
      const [issue] = error?.issues ?? []
      const fault = issue ? `${issue.path.join('.')}: ${plainIssue(issue).message}` : ''
      setTyped({ text, of: data ?? null, fault })
      if (data !== undefined) onChange(data)
    } catch {
      setTyped({ text, of: null, fault: t`This is no JSON yet.` })
    }
  }
  const fault = mine?.fault ?? ''
  return (
    <TextField
      label={label}
      rows={rows}
      asWritten
      value={mine?.text ?? JSON.stringify(value, null, 1)}
      onChange={read}
      {...(fault ? { error: fault } : {})}
    />
  )
}
