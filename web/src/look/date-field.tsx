import { format, isValid, parse, parseISO } from 'date-fns'
import { CalendarDays } from 'lucide-react'
import { Popover } from 'radix-ui'
import { lazy, type Ref, Suspense, useEffect, useState } from 'react'
import { t } from '../language/t'
import { dateLocale } from '../units/locale'
import { Labelled } from './field'
import { date as written } from './when'

const Month = lazy(() => import('./month').then((m) => ({ default: m.Month })))

/** A day as somebody typed it, in the locale's figures or as YYYY-MM-DD; null: it is none. */
export function readDate(text: string): string | null {
  const typed = text.trim()
  const read = /^\d{4}-\d{2}-\d{2}$/.test(typed) ? parseISO(typed) : parse(typed, 'P', new Date(), { locale: dateLocale() })
  return isValid(read) && read.getFullYear() > 1900 ? format(read, 'yyyy-MM-dd') : null
}

/** A day, typed or picked. What cannot be read stays and is explained. */
export function DateField({
  label,
  value,
  onChange,
  error,
  inputRef,
}: {
  label: string
  /** YYYY-MM-DD. */
  value: string | null
  onChange: (day: string | null) => void
  error?: string | undefined
  inputRef?: Ref<HTMLInputElement>
}) {
  const [text, setText] = useState(value ? written(value) : '')
  const [open, setOpen] = useState(false)
  // What comes from elsewhere, not what is typed here.
  useEffect(() => setText((now) => (readDate(now) === value ? now : value ? written(value) : now)), [value])
  const wrong = text.trim() !== '' && readDate(text) === null ? t`Not a day. Write it like ${written('2026-11-03')}.` : undefined
  return (
    <Labelled label={label} error={wrong ?? error}>
      {({ id, describedBy }) => (
        <span className="flex gap-1.5">
          <input
            id={id}
            ref={inputRef}
            aria-describedby={describedBy}
            aria-invalid={Boolean(wrong ?? error)}
            autoComplete="off"
            inputMode="numeric"
            className="field figure"
            value={text}
            onChange={(e) => {
              setText(e.target.value)
              onChange(readDate(e.target.value))
            }}
          />
          <Popover.Root open={open} onOpenChange={setOpen}>
            <Popover.Trigger
              aria-label={t`${label}: pick a day`}
              className="grid size-12 shrink-0 place-items-center rounded-md border-2 border-edge bg-sheet"
            >
              <CalendarDays aria-hidden="true" />
            </Popover.Trigger>
            <Popover.Portal>
              <Popover.Content align="end" sideOffset={4} className="z-60 rounded-xl border-2 border-ink bg-paper p-3">
                <Suspense>
                  <Month
                    value={value}
                    onPick={(d) => {
                      setText(written(d))
                      onChange(d)
                      setOpen(false)
                    }}
                  />
                </Suspense>
              </Popover.Content>
            </Popover.Portal>
          </Popover.Root>
        </span>
      )}
    </Labelled>
  )
}
