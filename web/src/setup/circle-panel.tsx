import type { Crane } from '@geolabe/core'
import { NumberField, SelectField } from '../look/field'
import { useSay } from '../units/units'
import type { SetupDraft } from './draft'
import type { OutriggerState } from './outrigger-state'

/** Outrigger loads before and with a load, round the whole circle. */
export function CirclePanel({
  machine,
  draft,
  states,
  onChange,
}: {
  machine: Crane
  draft: SetupDraft
  states: Map<string, OutriggerState>
  onChange: (c: SetupDraft['circle']) => void
}) {
  const say = useSay()
  const c = draft.circle
  return (
    <section>
      <h2 className="mb-2">Outrigger loads, once round</h2>
      <div className="grid grid-cols-2 gap-3 sm:grid-cols-3">
        <SelectField
          label="Boom"
          value={String(c.boom_m)}
          onChange={(v) => onChange({ ...c, boom_m: Number(v) })}
          options={machine.boom.lengths_m.map((l) => ({ value: String(l), label: say('length', l) }))}
        />
        <NumberField
          label="Radius"
          quantity="length"
          value={c.radius_m}
          least={1}
          onChange={(v) => v !== null && onChange({ ...c, radius_m: v })}
        />
        <NumberField
          label="All on the hook"
          quantity="mass"
          value={c.load_kg}
          least={0}
          onChange={(load_kg) => onChange({ ...c, load_kg })}
          hint="Empty: without a load."
        />
      </div>
      <div className="mt-3 overflow-x-auto">
        <table className="w-full text-left">
          <caption className="sr-only">Loads on each outrigger round the whole circle</caption>
          <thead>
            <tr className="text-[0.9rem] text-quiet">
              <th scope="col" className="py-1 font-semibold">
                Outrigger
              </th>
              <th scope="col" className="text-right font-semibold">
                Empty hook
              </th>
              <th scope="col" className="text-right font-semibold">
                Loaded
              </th>
              <th scope="col" className="text-right font-semibold">
                At most
              </th>
            </tr>
          </thead>
          <tbody>
            {machine.outriggers.map((l) => {
              const s = states.get(l.id)
              const range = (r: { min_N: number; max_N: number } | null | undefined) =>
                r ? `${say('force', r.min_N).replace(/\s\D+$/, '')}–${say('force', r.max_N)}` : '–'
              return (
                <tr key={l.id} className="border-t border-line">
                  <th scope="row" className="py-1.5 font-normal first-letter:uppercase">
                    {l.label}
                  </th>
                  <td className="figure text-right">{range(s?.unloaded)}</td>
                  <td className="figure text-right">{range(s?.loaded)}</td>
                  <td className="figure text-right font-bold">{s?.loaded ? say('force', s.loaded.upper_N) : '–'}</td>
                </tr>
              )
            })}
          </tbody>
        </table>
      </div>
      <p className="mt-2 text-[0.92rem] text-quiet">
        “At most” is what an outrigger may carry however the ground settles; the ground is checked against it. Loads include the
        site’s factor for the jerk of lifting.
      </p>
    </section>
  )
}
