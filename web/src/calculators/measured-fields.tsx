import { useState } from 'react'
import { t } from '../language/t'
import { measuredNow, type Typed, withMeasured } from './as-measured'
import type { Presentation } from './drawings/present'
import { Figure } from './figure'
import type { Obj } from './schema'

/** What people measure, beside the inputs that follow from it. */
export function MeasuredFields({
  measured,
  input,
  onChange,
}: {
  measured: NonNullable<Presentation['asMeasured']>
  input: Obj
  onChange: (input: Obj) => void
}) {
  const [typed, setTyped] = useState<Typed | null>(null)
  const now = measuredNow(measured, input, typed)
  if (Object.values(now).some(Number.isNaN)) return null
  const give = (name: string, v: unknown) => {
    const next = withMeasured(measured, input, typed, name, typeof v === 'number' ? v : undefined)
    setTyped(next)
    if (next.made !== input) onChange(next.made)
  }
  return (
    <fieldset className="rounded-lg border border-line bg-sheet p-2.5">
      <legend className="px-1 text-[0.92rem] font-bold">{t`As measured`}</legend>
      <div className="grid grid-cols-[repeat(auto-fill,minmax(11.5rem,1fr))] items-end gap-x-3 gap-y-2.5">
        {Object.entries(now).map(([name, value]) => (
          <Figure
            key={name}
            schema={{ type: 'number' }}
            name={name}
            path={`measured.${name}`}
            value={value}
            onChange={(to) => give(name, to)}
            fault={null}
          />
        ))}
      </div>
    </fieldset>
  )
}
