import { type AssemblyInput, type AssemblyPlan, answer, assemblyPlan, type ProcedureFile, type Scheduled } from '@geolabe/core'
import clsx from 'clsx'
import { useState } from 'react'
import { plural, t, told } from '../language/t'
import { NumberField, SelectField } from '../look/field'
import type { Order } from './use-order'

type Variant = ProcedureFile['assembly'][number]

/** Minutes as they are said. */
const lasts = (minutes: number) => {
  const [h, m] = [Math.floor(Math.round(minutes) / 60), Math.round(minutes) % 60]
  return h === 0 ? t`${m} min` : t`${h} h ${String(m).padStart(2, '0')} min`
}
/** A week: nobody goes home before it. */
const always_min = 10_000
const crew = (n: number): NonNullable<AssemblyInput['people']> =>
  Array.from({ length: n }, (_, i) => ({ id: t`Person ${i + 1}`, roles: [], from_min: 0, to_min: always_min }))

/** How it is put together: what comes when, what cannot wait, with so many people. It says when; the order of work says what each step needs. */
export function AssemblySheet({ order }: { order: Order }) {
  const { assembly } = order.file
  const [which, setWhich] = useState(assembly[0]?.id ?? '')
  const [people, setPeople] = useState('3')
  const [rated_kg, setRated] = useState<number | null>(9000)
  const [after_min, setAfter] = useState('0')
  const variant = assembly.find((v) => v.id === which)
  if (!variant) return null
  const assisted = variant.tasks.some((x) => x.resource === 'assist')
  const found = answer(() =>
    assemblyPlan({
      tasks: variant.tasks,
      people: people === '' ? undefined : crew(Number(people)),
      assist: assisted && rated_kg ? { available: true, rated_kg, from_min: Number(after_min) } : null,
    }),
  )
  const counts = Array.from({ length: 12 }, (_, i) => String(i + 1))
  return (
    <section aria-label={t`Who and when`} className="grid gap-3">
      <div className="grid grid-cols-2 gap-3">
        <SelectField
          label={t`How`}
          value={which}
          options={assembly.map((v) => ({ value: v.id, label: told(v.label) }))}
          onChange={setWhich}
        />
        <SelectField
          label={t`People`}
          value={people}
          options={[{ value: '', label: t`As many as wanted` }, ...counts.map((n) => ({ value: n, label: n }))]}
          onChange={setPeople}
        />
        {assisted && (
          <>
            <NumberField label={t`Assist crane may lift there`} quantity="mass" value={rated_kg} onChange={setRated} />
            <SelectField
              label={t`It comes`}
              value={after_min}
              options={[0, 60, 120, 180, 240].map((m) => ({
                value: String(m),
                label: m === 0 ? t`At once` : t`After ${lasts(m)}`,
              }))}
              onChange={setAfter}
            />
          </>
        )}
      </div>
      {'error' in found ? (
        <p role="alert" className="border-l-4 border-outside pl-3 font-semibold">
          {told(found.error.message)}
        </p>
      ) : (
        <Times plan={found} variant={variant} order={order} />
      )}
    </section>
  )
}

function Times({ plan, variant, order }: { plan: AssemblyPlan; variant: Variant; order: Order }) {
  const { low, likely, high } = plan.finish_min
  return (
    <>
      <p>
        <strong className="figure block text-4xl">{lasts(likely)}</strong>
        {t`Between ${lasts(low)} and ${lasts(high)}. With as many people as wanted ${lasts(plan.unlimited_min.likely)}.`}
      </p>
      <ol className="grid gap-1">
        {plan.tasks
          .toSorted((a, b) => a.start_min - b.start_min)
          .map((s) => (
            <Task key={s.id} at={s} critical={plan.critical.includes(s.id)} whole_min={likely} variant={variant} order={order} />
          ))}
      </ol>
      <p className="text-[0.95rem] text-quiet">
        {t`A plan of times: it changes nothing of what each step needs. The book and whoever is in charge decide the order; wind, light and rest are theirs to judge.`}
      </p>
    </>
  )
}

interface TaskProps {
  at: Scheduled
  critical: boolean
  whole_min: number
  variant: Variant
  order: Order
}

function Task({ at, critical, whole_min, variant, order }: TaskProps) {
  const task = variant.tasks.find((x) => x.id === at.id)
  if (!task) return null
  const done = task.steps.length > 0 && task.steps.every((s) => order.world.done[s] !== undefined)
  const share = (minutes: number) => `${whole_min === 0 ? 0 : (100 * minutes) / whole_min}%`
  return (
    <li className="border-b border-line pb-1">
      <span className="flex flex-wrap items-baseline justify-between gap-x-3">
        <strong>
          {told(task.label)}
          {done && <span className="text-quiet"> · {t`done`}</span>}
        </strong>
        <span className="figure text-[0.95rem]">
          {lasts(at.start_min)} – {lasts(at.finish_min)} · {plural(task.people, { one: '# person', other: '# people' })}
          {task.resource === 'assist' ? ` · ${t`assist crane`}` : ''}
        </span>
      </span>
      <span className="relative block h-2 rounded bg-sunk" aria-hidden="true">
        <span
          className={clsx('absolute inset-y-0 rounded', critical ? 'bg-ink' : 'bg-edge')}
          style={{ insetInlineStart: share(at.start_min), width: share(at.finish_min - at.start_min) }}
        />
      </span>
      <span className={critical ? 'text-[0.95rem] font-semibold' : 'text-[0.95rem] text-quiet'}>
        {critical ? t`Cannot wait` : t`May wait ${lasts(at.float_min)}`}
      </span>
    </li>
  )
}
