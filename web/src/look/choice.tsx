import clsx from 'clsx'
import { RadioGroup } from 'radix-ui'

/** A few ways, one of them: side by side, large enough for gloves. */
export function Choice<V extends string>({
  label,
  value,
  options,
  onChange,
  hideLabel,
}: {
  label: string
  value: V | null
  options: readonly { value: V; label: string; disabled?: boolean; note?: string }[]
  onChange: (v: V) => void
  hideLabel?: boolean
}) {
  return (
    <div>
      <p className={hideLabel ? 'sr-only' : 'mb-1 text-[0.95rem] font-semibold'}>{label}</p>
      <RadioGroup.Root
        aria-label={label}
        value={value ?? ''}
        onValueChange={(v) => onChange(v as V)}
        className="flex flex-wrap gap-1.5"
        orientation="horizontal"
      >
        {options.map((o) => (
          <RadioGroup.Item
            key={o.value}
            value={o.value}
            disabled={o.disabled ?? false}
            className={clsx(
              'min-h-12 grow basis-0 rounded-lg border-2 px-3 py-1.5 text-center font-semibold whitespace-nowrap',
              value === o.value ? 'border-ink bg-ink text-paper' : 'border-edge bg-sheet',
              o.disabled && 'border-dashed text-quiet',
            )}
          >
            {o.label}
            {o.note && <span className="block text-[0.82rem] font-normal whitespace-normal">{o.note}</span>}
          </RadioGroup.Item>
        ))}
      </RadioGroup.Root>
    </div>
  )
}
