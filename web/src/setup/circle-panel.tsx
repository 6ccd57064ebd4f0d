import { type OutriggerCrane, type SetupPlan, supportOf } from '@geolabe/core'
import { useMemo } from 'react'
import { t } from '../language/t'
import { NumberField, SelectField } from '../look/field'
import { type Columns, columnsOf, Table } from '../look/table'
import { useSay } from '../units/units'
import type { SetupDraft } from './draft'
import type { OutriggerState } from './outrigger-state'

interface Row {
  label: string
  state: OutriggerState | undefined
}
const helper = columnsOf<Row>()

/** Outrigger loads before and with a load, round the whole circle. */
export function CirclePanel({
  machine,
  plan,
  draft,
  states,
  onChange,
}: {
  machine: OutriggerCrane
  plan: SetupPlan
  draft: SetupDraft
  states: Map<string, OutriggerState>
  onChange: (c: SetupDraft['circle']) => void
}) {
  const say = useSay()
  const c = draft.circle
  const rows = useMemo<Row[]>(
    () => supportOf(machine, plan.standing).points.map((o) => ({ label: o.label, state: states.get(o.id) })),
    [machine, plan.standing, states],
  )
  const columns = useMemo<Columns<Row>>(() => {
    const range = (r: { min_N: number; max_N: number } | null | undefined) =>
      r ? `${say('force', r.min_N).replace(/\s\D+$/, '')}–${say('force', r.max_N)}` : '–'
    const figure = (header: string, of: (s: OutriggerState | undefined) => string) =>
      helper.display({
        id: header,
        header: () => <span className="text-[0.9rem] text-quiet">{header}</span>,
        cell: ({ row }) => <span className="figure">{of(row.original.state)}</span>,
      })
    return [
      helper.display({
        id: 'outrigger',
        header: () => <span className="text-[0.9rem] text-quiet">{t`Outrigger`}</span>,
        cell: ({ row }) => <span className="inline-block first-letter:uppercase">{row.original.label}</span>,
      }),
      figure(t`Empty hook`, (s) => range(s?.unloaded)),
      figure(t`Loaded`, (s) => range(s?.loaded)),
      figure(t`At most`, (s) => (s?.loaded ? say('force', s.loaded.upper_N) : '–')),
    ]
  }, [say])
  return (
    <section>
      <h2 className="mb-2">{t`Outrigger loads, once round`}</h2>
      <div className="grid grid-cols-2 gap-3 sm:grid-cols-3">
        <SelectField
          label={t`Boom`}
          value={String(c.boom_m)}
          onChange={(v) => onChange({ ...c, boom_m: Number(v) })}
          options={machine.boom.lengths_m.map((l) => ({ value: String(l), label: say('length', l) }))}
        />
        <NumberField
          label={t`Radius`}
          quantity="length"
          value={c.radius_m}
          least={1}
          onChange={(v) => v !== null && onChange({ ...c, radius_m: v })}
        />
        <NumberField
          label={t`All on the hook`}
          quantity="mass"
          value={c.load_kg}
          least={0}
          onChange={(load_kg) => onChange({ ...c, load_kg })}
          hint={t`Empty: without a load.`}
        />
      </div>
      <div className="mt-3">
        <Table label={t`Loads on each outrigger round the whole circle`} columns={columns} rows={rows} />
      </div>
      <p className="mt-2 text-[0.92rem] text-quiet">{t`“At most” is what an outrigger may carry however the ground settles; the ground is checked against it. Loads include the site’s factor for the jerk of lifting.`}</p>
    </section>
  )
}
