import clsx from 'clsx'
import { Check } from 'lucide-react'
import type { ReactNode } from 'react'

/** One thing to confirm: a whole row to touch, not a small box. */
export function Tick({
  checked,
  onChange,
  disabled,
  children,
  note,
}: {
  checked: boolean
  onChange: (v: boolean) => void
  disabled?: boolean
  children: ReactNode
  note?: ReactNode
}) {
  return (
    <label
      className={clsx(
        'relative flex min-h-12 items-start gap-3 rounded-lg border-2 px-3 py-2.5 has-focus-visible:outline-3 has-focus-visible:outline-ink has-focus-visible:outline-offset-2',
        checked ? 'border-ink bg-sunk' : 'border-line bg-sheet',
        disabled ? 'cursor-not-allowed' : 'cursor-pointer',
      )}
    >
      <input
        type="checkbox"
        className="peer sr-only"
        checked={checked}
        disabled={disabled}
        onChange={(e) => onChange(e.target.checked)}
      />
      <span
        className={clsx(
          'mt-0.5 grid size-6 shrink-0 place-items-center rounded border-2',
          checked ? 'border-ink bg-accent text-on-accent' : 'border-edge',
        )}
      >
        {checked && <Check size={18} strokeWidth={3.4} aria-hidden="true" />}
      </span>
      <span className="min-w-0">
        <span className={clsx('font-semibold', disabled && !checked && 'text-quiet')}>{children}</span>
        {note && <span className="block text-[0.92rem] text-quiet">{note}</span>}
      </span>
    </label>
  )
}
