import { fileFigure } from '@geolabe/contract'
import type { Machine, PlateField, PlateValue } from '@geolabe/core'
import { useState } from 'react'
import { t } from '../language/t'
import { Labelled, NumberField, TextField } from '../look/field'
import { useSay } from '../units/units'

type Plates = Record<string, PlateValue>

/** A value of the plate as it is read out: a mass or a length in the person's own units. */
export function PlateSays({ field, value }: { field: PlateField; value: PlateValue | undefined }) {
  const say = useSay()
  if (value === undefined) return <>{t`not entered`}</>
  if (typeof value === 'string' || field.quantity === undefined || field.quantity === 'none') return <>{String(value)}</>
  if (field.quantity === 'voltage') return <>{t`${value} V`}</>
  return <>{say(field.quantity, value)}</>
}

/** The rating plate: entered field by field the first time, compared with the table in use, and ever after with itself. */
export function Plate({
  machine,
  known,
  expected,
  given,
  onGiven,
}: {
  machine: Machine
  known: Plates | null
  expected: Readonly<Record<string, number>>
  given: Plates
  onGiven: (g: Plates) => void
}) {
  if (machine.plateFields.length === 0) return null
  if (known) {
    return (
      <div className="mt-4 rounded-lg border border-line p-3">
        <p className="mb-1 font-semibold">{t`It said, when it was entered:`}</p>
        <dl className="grid grid-cols-[1fr_auto] gap-x-4">
          {machine.plateFields.map((f) => (
            <div key={f.id} className="contents">
              <dt className="text-quiet">{f.label}</dt>
              <dd className="figure whitespace-nowrap font-semibold">
                <PlateSays field={f} value={known[f.id]} />
              </dd>
            </div>
          ))}
        </dl>
        <p className="mt-1 text-quiet">{t`If it reads differently now, enter a defect.`}</p>
      </div>
    )
  }
  const put = (id: string, v: PlateValue | null) =>
    onGiven(v === null ? Object.fromEntries(Object.entries(given).filter(([k]) => k !== id)) : { ...given, [id]: v })
  return (
    <div className="mt-4 grid gap-3">
      <p className="font-semibold">{t`Not entered yet. Read the plate and enter what it says; it is compared from now on.`}</p>
      {machine.plateFields.map((f) => (
        <div key={f.id}>
          <Field field={f} value={given[f.id]} onValue={(v) => put(f.id, v)} />
          {expected[f.id] !== undefined && given[f.id] !== undefined && !agrees(expected[f.id], given[f.id]) && (
            <p className="mt-1 border-l-4 border-outside pl-3 font-semibold">
              {t`The table in use gives`} <PlateSays field={f} value={expected[f.id]} />
              {t`. One of them belongs to another machine: read the plate again; if it says so, it is a defect.`}
            </p>
          )}
        </div>
      ))}
    </div>
  )
}

const agrees = (a: number | undefined, b: PlateValue | undefined) => Math.abs(Number(a) - Number(b)) <= 1e-6 * Number(a)

function Field({
  field: f,
  value,
  onValue,
}: {
  field: PlateField
  value: PlateValue | undefined
  onValue: (v: PlateValue | null) => void
}) {
  if (f.quantity === undefined) return <TextField label={f.label} value={String(value ?? '')} onChange={onValue} />
  if (f.quantity === 'mass' || f.quantity === 'length') {
    return (
      <NumberField label={f.label} quantity={f.quantity} value={typeof value === 'number' ? value : null} onChange={onValue} />
    )
  }
  return <PlainFigure label={f.label} unit={f.quantity === 'voltage' ? 'V' : ''} onValue={onValue} />
}

/** A figure that is the same in all units: a year, a voltage. */
function PlainFigure({ label, unit, onValue }: { label: string; unit: string; onValue: (v: number | null) => void }) {
  const [text, setText] = useState('')
  const [wrong, setWrong] = useState<string | undefined>()
  return (
    <Labelled label={label} error={wrong} hint={unit}>
      {({ id, describedBy }) => (
        <input
          id={id}
          aria-describedby={describedBy}
          aria-invalid={wrong !== undefined}
          inputMode="decimal"
          autoComplete="off"
          className="field figure text-lg"
          value={text}
          onChange={(e) => {
            setText(e.target.value)
            try {
              onValue(e.target.value.trim() === '' ? null : fileFigure(e.target.value))
              setWrong(undefined)
            } catch {
              onValue(null)
              setWrong(t`Enter the figure alone.`)
            }
          }}
        />
      )}
    </Labelled>
  )
}
