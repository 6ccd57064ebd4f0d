import { type LiftPlan, nominal } from '@geolabe/core'
import { t } from '../language/t'
import { Button } from '../look/button'
import { NumberField, TextField } from '../look/field'

type Rigging = LiftPlan['hung']['rigging']

/** What hangs besides the load itself, each by its name and mass. */
export function RiggingFields({
  rigging,
  legend = t`Also hung: slings, links, spreaders`,
  onChange,
}: {
  rigging: Rigging
  legend?: string
  onChange: (to: Rigging) => void
}) {
  const row = (i: number, to: Partial<Rigging[number]>) => onChange(rigging.map((r, j) => (j === i ? { ...r, ...to } : r)))
  return (
    <fieldset className="grid gap-2">
      <legend className="mb-1 font-semibold">{legend}</legend>
      {rigging.map((r, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: rows are only added and taken off at their place
        <div key={i} className="grid grid-cols-[1fr_8rem_auto] items-end gap-2">
          <TextField label={t`What`} value={r.name} onChange={(name) => row(i, { name: name || ' ' })} />
          <NumberField
            label={t`Mass`}
            quantity="mass"
            value={nominal(r.mass_kg)}
            least={0}
            onChange={(v) => row(i, { mass_kg: v ?? 0 })}
          />
          <Button
            aria-label={t`Take off ${r.name.trim() || t`this`}`}
            onClick={() => onChange(rigging.filter((_, j) => j !== i))}
          >{t`Off`}</Button>
        </div>
      ))}
      <Button
        className="w-fit"
        onClick={() => onChange([...rigging, { name: 'sling', mass_kg: 40, on: 'hook' }])}
      >{t`Add rigging`}</Button>
    </fieldset>
  )
}
