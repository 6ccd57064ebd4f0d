import clsx from 'clsx'
import { Plus, Trash2 } from 'lucide-react'
import { type ReactNode, useState } from 'react'
import { t } from '../language/t'
import { Button } from '../look/button'
import { PlainField, SelectField, TextField } from '../look/field'

/** A part of a form with its rows, and a key for one more. */
export function Rows({ title, add, onAdd, children }: { title: string; add: string; onAdd: () => void; children: ReactNode }) {
  return (
    <section aria-label={title} className="grid gap-3">
      <h3 className="font-bold">{title}</h3>
      {children}
      <Button className="w-fit" onClick={onAdd}>
        <Plus aria-hidden="true" size={18} /> {add}
      </Button>
    </section>
  )
}

export function Away({ label, onClick }: { label: string; onClick: () => void }) {
  return (
    <button type="button" aria-label={label} className="grid size-12 shrink-0 place-items-center rounded-lg" onClick={onClick}>
      <Trash2 aria-hidden="true" size={20} />
    </button>
  )
}

/** The same list with one of it said otherwise, or taken out. */
export const put = <T,>(list: readonly T[], i: number, to: T): T[] => list.map((x, k) => (k === i ? to : x))
export const without = <T,>(list: readonly T[], i: number): T[] => list.filter((_, k) => k !== i)

/** Sentences one under the other, in their order. */
export function Lines({
  title,
  each,
  lines,
  least = 0,
  onChange,
}: {
  title: string
  each: string
  lines: readonly string[]
  least?: number
  onChange: (to: string[]) => void
}) {
  return (
    <Rows title={title} add={t`One more`} onAdd={() => onChange([...lines, ''])}>
      {lines.map((line, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: lines have no name of their own
        <div key={i} className="flex items-end gap-2">
          <div className="grow">
            <TextField
              label={`${each} ${i + 1}`}
              value={line}
              onChange={(v) => onChange(put(lines, i, v))}
              {...(line === '' ? { error: t`Write it, or take it out.` } : {})}
            />
          </div>
          {lines.length > least && <Away label={t`Take out: ${line}`} onClick={() => onChange(without(lines, i))} />}
        </div>
      ))}
    </Rows>
  )
}

/** A figure that has to be there: emptied, it says so, and the last one stays. */
export function NeededFigure({ label, value, onChange }: { label: string; value: number; onChange: (v: number) => void }) {
  const [empty, setEmpty] = useState(false)
  return (
    <PlainField
      label={label}
      value={value}
      error={empty ? t`Give a figure; until then it stays ${value}.` : undefined}
      onChange={(v) => {
        setEmpty(v === null)
        if (v !== null) onChange(v)
      }}
    />
  )
}

interface Option {
  value: string
  label: string
}

/** Names out of a list, each chosen by its words. */
export function Chosen({
  title,
  none,
  each,
  chosen,
  options,
  onChange,
}: {
  title: string
  none?: string
  each: string
  chosen: readonly string[]
  options: readonly Option[]
  onChange: (to: string[]) => void
}) {
  return (
    <Rows title={title} add={t`One more`} onAdd={() => onChange([...chosen, options[0]?.value ?? ''])}>
      {none && chosen.length === 0 && <p className="text-quiet">{none}</p>}
      {chosen.map((id, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: a name may stand twice while it is chosen
        <div key={i} className="flex items-end gap-2">
          <div className="grow">
            <SelectField label={each} value={id} options={[...options]} onChange={(to) => onChange(put(chosen, i, to))} />
          </div>
          <Away label={t`Take it out`} onClick={() => onChange(without(chosen, i))} />
        </div>
      ))}
    </Rows>
  )
}

/** A list down the side, one of it open. */
export function Pick({
  names,
  at,
  onPick,
}: {
  names: readonly { id: string; name: string }[]
  at: number
  onPick: (i: number) => void
}) {
  return (
    <ol className="my-3 grid max-h-[26rem] overflow-y-auto border-y border-line">
      {names.map(({ id, name }, i) => (
        <li key={id}>
          <button
            type="button"
            aria-current={i === at ? 'step' : undefined}
            className={clsx(
              'min-h-12 w-full border-l-4 py-1.5 pl-3 text-left',
              i === at ? 'border-accent bg-sunk font-bold' : 'border-transparent',
            )}
            onClick={() => onPick(i)}
          >
            {name}
          </button>
        </li>
      ))}
    </ol>
  )
}
