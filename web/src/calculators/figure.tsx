import { type ReactNode, useEffect, useId, useState } from 'react'
import { t, told } from '../language/t'
import { unitIn, wordsOf } from '../units/field-names'
import { editIn, editPlain, parseIn, parsePlain, typedFault, unitOf, usePreferences } from '../units/units'
import { isObj, isTol, type Json, mayBeNull, type Schema, takesTol } from './schema'

export interface Fields {
  schema: Schema
  value: Json | undefined
  onChange: (v: Json | undefined) => void
  /** Where it stands in the input, as a refusal names it. */
  path: string
  name: string
  fault: { path: string; message: string } | null
}

export function Frame({ label, fault, children }: { label: string; fault: string | null; children: (id: string) => ReactNode }) {
  const id = useId()
  return (
    <div className="min-w-0">
      <label htmlFor={id} className="mb-1 block text-[0.92rem] leading-tight font-semibold">
        {label}
      </label>
      {children(id)}
      {fault && <p className="mt-1 text-[0.92rem] font-semibold text-outside">{told(fault)}</p>}
    </div>
  )
}

export const faultAt = (p: Fields) =>
  p.fault && (p.fault.path === p.path || p.fault.path.startsWith(`${p.path}.`)) && !isObj(p.value) ? p.fault.message : null

/** How a figure of this name is shown and typed. */
function useScale(name: string) {
  const { units } = usePreferences()
  const known = unitIn(name)
  if (known && 'quantity' in known) {
    const { quantity } = known
    return {
      label: unitOf(units, quantity).label,
      show: (v: number) => editIn(units, quantity, v),
      read: (t: string) => parseIn(units, quantity, t),
    }
  }
  const factor = known?.factor ?? 1
  return {
    label: known?.unit ?? '',
    show: (v: number) => editPlain(Number((v / factor).toPrecision(10))),
    read: (t: string) => {
      const v = parsePlain(t)
      return v === null ? null : v * factor
    },
  }
}

function NumberBox({
  id,
  label,
  value,
  scale,
  onChange,
  wrong,
  narrow,
}: {
  id?: string
  label?: string
  value: number | null
  scale: ReturnType<typeof useScale>
  onChange: (v: number | null) => void
  wrong?: boolean
  narrow?: boolean
}) {
  const [text, setText] = useState(value === null ? '' : scale.show(value))
  const shown = value === null ? '' : scale.show(value)
  useEffect(() => {
    setText((now) => {
      const mine = scale.read(now)
      return (mine === null ? '' : scale.show(mine)) === shown ? now : shown
    })
  }, [shown, scale])
  return (
    <span className={`relative block grow ${narrow ? 'min-w-0' : 'min-w-[6.5rem] basis-[6.5rem]'}`}>
      <input
        id={id}
        aria-label={label}
        aria-invalid={wrong || typedFault(text) !== null}
        inputMode="decimal"
        autoComplete="off"
        className={`field figure ${narrow ? 'px-2' : 'pr-12'}`}
        value={text}
        onChange={(e) => {
          setText(e.target.value)
          onChange(typedFault(e.target.value) ? null : scale.read(e.target.value))
        }}
      />
      {typedFault(text) && <span className="mt-1 block text-[0.92rem] font-semibold text-outside">{typedFault(text)}</span>}
      {!narrow && (
        <span className="pointer-events-none absolute inset-y-0 right-2.5 flex items-center text-[0.86rem] text-quiet">
          {scale.label}
        </span>
      )}
    </span>
  )
}

export function Figure(p: Fields) {
  const scale = useScale(p.name)
  const tolerant = takesTol(p.schema)
  const nominal = isTol(p.value) ? p.value.value : typeof p.value === 'number' ? p.value : null
  const off = isTol(p.value) ? p.value.tolerance : null
  // Asked for once, it stays: a ± that is taken away can be typed again.
  const [asked, setAsked] = useState(off !== null)
  const give = (v: number | null, t: number | null) =>
    p.onChange(v === null ? (mayBeNull(p.schema) ? null : undefined) : t ? { value: v, tolerance: t } : v)
  const label = wordsOf(p.name)
  const fault = faultAt(p) ?? (p.fault && isTol(p.value) && p.fault.path.startsWith(p.path) ? p.fault.message : null)
  return (
    <Frame label={label} fault={fault}>
      {(id) => (
        <span className="flex flex-wrap items-center gap-1">
          <NumberBox id={id} value={nominal} scale={scale} wrong={fault !== null} onChange={(v) => give(v, off)} />
          {tolerant && off === null && !asked && (
            <button
              type="button"
              aria-label={t`Give a ± for ${label}`}
              title={t`Not sure of it: give a ±`}
              className="flex size-12 shrink-0 items-center justify-center rounded-lg text-[1.15rem] text-quiet hover:text-ink"
              onClick={() => setAsked(true)}
            >
              ±
            </button>
          )}
          {tolerant && (off !== null || asked) && (
            <span className="flex w-[5.2rem] shrink-0 items-center gap-1">
              <span aria-hidden="true" className="text-quiet">
                ±
              </span>
              <NumberBox label={`${label} ±`} value={off} scale={scale} narrow onChange={(t) => give(nominal, t)} />
            </span>
          )}
        </span>
      )}
    </Frame>
  )
}

export function Numbers(p: Fields) {
  const scale = useScale(p.name)
  const list = Array.isArray(p.value) ? (p.value as number[]) : []
  const said = list.map(scale.show).join('; ')
  const [text, setText] = useState(said)
  return (
    <Frame
      label={t`${wordsOf(p.name)}${scale.label ? `, ${scale.label}` : ''}, one after another`}
      fault={faultAt(p) ?? (p.fault?.path.startsWith(p.path) ? p.fault.message : null)}
    >
      {(id) => (
        <input
          id={id}
          className="field figure"
          autoComplete="off"
          value={text}
          onChange={(e) => {
            setText(e.target.value)
            p.onChange(
              e.target.value
                .split(/[;\s]+/)
                .filter(Boolean)
                .map((t) => scale.read(t) ?? t),
            )
          }}
        />
      )}
    </Frame>
  )
}
