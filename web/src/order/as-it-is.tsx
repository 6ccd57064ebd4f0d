import { setBy, stepsOfFile } from '@geolabe/core'
import { useState } from 'react'
import { t, told } from '../language/t'
import { Button } from '../look/button'
import { SelectField } from '../look/field'
import type { Order } from './use-order'

interface Asked {
  state: string
  usual: string | number
}

/** What a held control was moving when it was let go early, or broken off: it stands anywhere, and is never taken to be as usual. */
function stoppedMidway({ file, world }: Order): Set<string> {
  const moved = stepsOfFile(file).filter((s) => s.hold?.early === 'incomplete')
  return new Set(moved.flatMap((s) => setBy(s)).filter((id) => (world.states[id]?.at_ms ?? 0) > 0))
}

/** Nobody has said how these stand: looked at and said first, all on one screen. As a rule all of it is as it usually is, and one touch says so. */
export function AsItIs({ order, asked }: { order: Order; asked: readonly Asked[] }) {
  const [said, setSaid] = useState<Record<string, string>>({})
  const stopped = stoppedMidway(order)
  const nowOf = ({ state, usual }: Asked) => said[state] ?? (stopped.has(state) ? '' : String(usual))
  const missing = asked.some((a) => nowOf(a) === '')
  const declared = (id: string) => order.file.states.find((s) => s.id === id)
  const words = (a: Asked) => (nowOf(a) === '' ? t`nobody knows` : labelOf(a))
  const labelOf = (a: Asked) => told(declared(a.state)?.values?.find((v) => v.id === nowOf(a))?.label ?? nowOf(a))
  // Several alike that stand alike are one line; the one that does not has its own.
  const nameOf = (a: Asked) => {
    const d = declared(a.state)
    const alike = asked.filter((x) => d?.member && declared(x.state)?.member?.base === d.member.base)
    const end = d?.member && `, ${d.member.label}`
    if (!d || !end || !d.label.endsWith(end) || alike.some((x) => nowOf(x) !== nowOf(a))) return told(d?.label ?? a.state)
    return t`${told(d.label.slice(0, -end.length))}, all ${alike.length}`
  }
  const rows = [...new Map(asked.map((a) => [nameOf(a), words(a)] as const))]
  const tell = () => order.tell(asked.map((a) => ({ do: 'found' as const, state: a.state, to: nowOf(a) })))
  return (
    <section aria-label={t`How it stands now`} className="mb-3 rounded-lg border-2 border-ink p-3">
      <h2 className="mb-2 text-lg font-bold">{t`How it stands now`}</h2>
      <Button
        look="next"
        className="mb-3"
        disabled={missing}
        onClick={() => void tell()}
      >{t`I looked: it stands like this`}</Button>
      <dl className="columns-2 gap-4 text-[0.95rem] max-sm:columns-1">
        {rows.map(([name, value]) => (
          <div key={name} className="flex break-inside-avoid justify-between gap-2 border-b border-line py-0.5">
            <dt>{name}</dt>
            <dd className="text-right font-semibold">{value}</dd>
          </div>
        ))}
      </dl>
      <details className="mt-2" open={missing || undefined}>
        <summary className="min-h-10 cursor-pointer font-semibold underline underline-offset-4">{t`Something stands differently`}</summary>
        <div className="mt-1 grid gap-x-4 gap-y-2 sm:grid-cols-2">
          {asked.map((a) => (
            <SelectField
              key={a.state}
              label={told(declared(a.state)?.label ?? a.state)}
              value={nowOf(a)}
              options={[
                ...(nowOf(a) === '' ? [{ value: '', label: t`Look, and say` }] : []),
                ...(declared(a.state)?.values ?? []).map((v) => ({ value: v.id, label: told(v.label) })),
              ]}
              onChange={(v) => setSaid((s) => ({ ...s, [a.state]: v }))}
            />
          ))}
        </div>
      </details>
    </section>
  )
}
