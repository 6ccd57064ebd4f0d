import type { Machine } from '@geolabe/core'
import { TextField } from '../look/field'

/** The rating plate: entered field by field the first time, compared ever after. */
export function Plate({
  machine,
  known,
  given,
  onGiven,
}: {
  machine: Machine
  known: Record<string, string> | null
  given: Record<string, string>
  onGiven: (g: Record<string, string>) => void
}) {
  if (machine.plateFields.length === 0) return null
  if (known) {
    return (
      <div className="mt-4 rounded-lg border border-line p-3">
        <p className="mb-1 font-semibold">It said, when it was entered:</p>
        <dl className="grid grid-cols-[auto_1fr] gap-x-4">
          {machine.plateFields.map((f) => (
            <div key={f.id} className="contents">
              <dt className="text-quiet">{f.label}</dt>
              <dd className="figure font-semibold">{known[f.id] ?? 'not entered'}</dd>
            </div>
          ))}
        </dl>
        <p className="mt-1 text-quiet">Reads otherwise now? That is a defect.</p>
      </div>
    )
  }
  return (
    <div className="mt-4 grid gap-3">
      <p className="font-semibold">Not entered yet. Read the plate and enter what it says; it is compared from now on.</p>
      {machine.plateFields.map((f) => (
        <TextField key={f.id} label={f.label} value={given[f.id] ?? ''} onChange={(v) => onGiven({ ...given, [f.id]: v })} />
      ))}
    </div>
  )
}
