import type { Quantity, Tol } from '@geolabe/core'
import { type ClipboardEvent, type ReactNode, type Ref, useEffect, useId, useState } from 'react'
import { t, told } from '../language/t'
import { editIn, editPlain, parseIn, parsePlain, typedFault, unitOf, usePreferences } from '../units/units'

export function Labelled({
  label,
  hint,
  error,
  children,
}: {
  label: string
  hint?: string | undefined
  error?: string | undefined
  children: (ids: { id: string; describedBy: string | undefined }) => ReactNode
}) {
  const id = useId()
  return (
    <div className="min-w-0">
      <label htmlFor={id} className="mb-1 block text-[0.95rem] font-semibold">
        {label}
      </label>
      {children({ id, describedBy: hint || error ? `${id}-more` : undefined })}
      {(error || hint) && (
        <p id={`${id}-more`} className={error ? 'mt-1 font-semibold text-outside' : 'mt-1 text-[0.9rem] text-quiet'}>
          {error ? told(error) : hint}
        </p>
      )}
    </div>
  )
}

interface NumberProps {
  label: string
  quantity: Quantity
  value: number | null
  onChange: (value: number | null) => void
  hint?: string
  error?: string | undefined
  least?: number
  most?: number
  /** Left empty it means “not known”, and says so. */
  optional?: boolean
}

/** A figure with its unit, typed in the person's own units, kept in SI. What cannot be read stays and is explained. */
export function NumberField({ label, quantity, value, onChange, hint, error, least, most, optional = true }: NumberProps) {
  const { units } = usePreferences()
  const [text, setText] = useState(() => editIn(units, quantity, value))
  const parsed = parseIn(units, quantity, text)
  // Follow changes that come from elsewhere (a drag, a change taken), not those typed here.
  useEffect(() => {
    setText((now) => {
      const mine = parseIn(units, quantity, now)
      return mine !== null && value !== null && Math.abs(mine - value) < 1e-9
        ? now
        : mine === null && value === null
          ? now
          : editIn(units, quantity, value)
    })
  }, [value, units, quantity])
  const { label: unit } = unitOf(units, quantity)
  const wrong =
    typedFault(text) ??
    (parsed !== null && least !== undefined && parsed < least
      ? t`At least ${editIn(units, quantity, least)} ${unit}.`
      : parsed !== null && most !== undefined && parsed > most
        ? t`At most ${editIn(units, quantity, most)} ${unit}.`
        : !optional && text.trim() === ''
          ? t`Needed.`
          : undefined)
  return (
    <Labelled label={label} hint={hint} error={wrong ?? error}>
      {({ id, describedBy }) => (
        <span className="relative block">
          <input
            id={id}
            aria-describedby={describedBy}
            aria-invalid={Boolean(wrong ?? error)}
            inputMode="decimal"
            autoComplete="off"
            className="field figure pr-14 text-lg"
            value={text}
            onChange={(e) => {
              setText(e.target.value)
              const v = parseIn(units, quantity, e.target.value)
              const fits =
                v !== null &&
                typedFault(e.target.value) === null &&
                (least === undefined || v >= least) &&
                (most === undefined || v <= most)
              if (e.target.value.trim() === '') onChange(null)
              else if (fits) onChange(v)
            }}
          />
          <span className="pointer-events-none absolute inset-y-0 right-3 flex items-center text-[0.9rem] text-quiet">
            {unit}
          </span>
        </span>
      )}
    </Labelled>
  )
}

/** A measured figure and how far off it may be. */
export function TolField({
  label,
  quantity,
  value,
  onChange,
  hint,
  least,
}: {
  label: string
  quantity: Quantity
  value: Tol | null
  onChange: (v: Tol | null) => void
  hint?: string
  least?: number
}) {
  const nominal = value === null ? null : typeof value === 'number' ? value : value.value
  const off = value === null || typeof value === 'number' ? null : value.tolerance
  const join = (v: number | null, t: number | null): Tol | null =>
    v === null ? null : t === null || t === 0 ? v : { value: v, tolerance: t }
  return (
    <div className="grid grid-cols-[3fr_2fr] gap-2">
      <NumberField
        label={label}
        quantity={quantity}
        value={nominal}
        onChange={(v) => onChange(join(v, off))}
        {...(hint ? { hint } : {})}
        {...(least === undefined ? {} : { least })}
      />
      <NumberField
        label="±"
        quantity={quantity}
        value={off}
        least={0}
        {...(nominal === null ? {} : { most: Math.max(0, Math.abs(nominal) * 0.999) })}
        onChange={(t) => onChange(join(nominal, t))}
      />
    </div>
  )
}

export function SelectField<V extends string>({
  label,
  value,
  options,
  onChange,
  hint,
  error,
  inputRef,
}: {
  label: string
  value: V
  options: readonly { value: V; label: string; disabled?: boolean }[]
  onChange: (v: V) => void
  hint?: string
  error?: string | undefined
  inputRef?: Ref<HTMLSelectElement>
}) {
  return (
    <Labelled label={label} hint={hint} error={error}>
      {({ id, describedBy }) => (
        <select
          id={id}
          ref={inputRef}
          aria-describedby={describedBy}
          aria-invalid={Boolean(error)}
          className="field"
          value={value}
          onChange={(e) => onChange(e.target.value as V)}
        >
          {options.map((o) => (
            <option key={o.value} value={o.value} disabled={o.disabled}>
              {o.label}
            </option>
          ))}
        </select>
      )}
    </Labelled>
  )
}

/** So long a text a browser takes in line by line, for many seconds: it is put in at once instead. */
const long = 2000
const pasted = (onChange: (v: string) => void) => (e: ClipboardEvent<HTMLTextAreaElement>) => {
  const text = e.clipboardData.getData('text')
  if (text.length < long) return
  e.preventDefault()
  const at = e.currentTarget
  at.setRangeText(text, at.selectionStart, at.selectionEnd, 'end')
  onChange(at.value)
}

export function TextField({
  label,
  value,
  onChange,
  hint,
  error,
  rows,
  asWritten = false,
  type = 'text',
  autoFocus,
  inputMode,
  inputRef,
}: {
  label: string
  value: string
  onChange: (v: string) => void
  hint?: string
  error?: string | undefined
  rows?: number
  /** A file’s own text: its lines are not broken, its words not corrected. */
  asWritten?: boolean
  type?: string
  autoFocus?: boolean
  inputMode?: 'numeric' | 'decimal' | 'text'
  inputRef?: Ref<HTMLInputElement & HTMLTextAreaElement>
}) {
  return (
    <Labelled label={label} hint={hint} error={error}>
      {({ id, describedBy }) =>
        rows ? (
          <textarea
            id={id}
            ref={inputRef}
            aria-describedby={describedBy}
            aria-invalid={Boolean(error)}
            rows={rows}
            className={asWritten ? 'field overflow-x-auto whitespace-pre font-mono text-[0.9rem]' : 'field'}
            value={value}
            onChange={(e) => onChange(e.target.value)}
            {...(asWritten ? { wrap: 'off', spellCheck: false, onPaste: pasted(onChange) } : {})}
          />
        ) : (
          <input
            id={id}
            ref={inputRef}
            aria-describedby={describedBy}
            aria-invalid={Boolean(error)}
            type={type}
            inputMode={inputMode}
            autoComplete="off"
            // biome-ignore lint/a11y/noAutofocus: the one field of a screen that has just been opened
            autoFocus={autoFocus}
            className="field text-lg"
            value={value}
            onChange={(e) => onChange(e.target.value)}
          />
        )
      }
    </Labelled>
  )
}

/** A figure in no unit of ours (hours, seconds). What cannot be read stays, is explained, and counts as not entered. */
export function PlainField({
  value,
  onChange,
  error,
  ...rest
}: {
  label: string
  value: number | null
  onChange: (v: number | null) => void
  hint?: string
  error?: string | undefined
  inputRef?: Ref<HTMLInputElement & HTMLTextAreaElement>
}) {
  const [text, setText] = useState(value === null ? '' : editPlain(value))
  return (
    <TextField
      {...rest}
      value={text}
      inputMode="numeric"
      error={typedFault(text) ?? error}
      onChange={(t) => {
        setText(t)
        onChange(typedFault(t) ? null : parsePlain(t))
      }}
    />
  )
}
