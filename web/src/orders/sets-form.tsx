import { type ProcedureFile, type ProcedureStep, unknown } from '@geolabe/core'
import { t, told } from '../language/t'
import { SelectField } from '../look/field'
import { Away, put, Rows, without } from './rows'

type Sets = ProcedureStep['sets']

/** What becomes of states that are said in words; what is read off is there as it is written. */
export function SetsForm<S extends Sets[number]>({
  title,
  sets,
  file,
  onChange,
}: {
  title: string
  sets: readonly S[]
  file: ProcedureFile
  onChange: (to: (S | { state: string; to: string })[]) => void
}) {
  const states = file.states.filter((s) => s.values && s.source === 'person')
  const valuesOf = (id: string) => [
    ...(states.find((s) => s.id === id)?.values ?? []),
    { id: unknown, label: t`not known any more` },
  ]
  const first = states[0]
  const change = (i: number, state: string, to: string) =>
    onChange(put<S | { state: string; to: string }>(sets, i, { state, to }))
  return (
    <Rows
      title={title}
      add={t`One more`}
      onAdd={() => first && onChange([...sets, { state: first.id, to: first.values?.[0]?.id ?? unknown }])}
    >
      {sets.map((x, i) =>
        typeof x.to === 'string' && states.some((s) => s.id === x.state) ? (
          // biome-ignore lint/suspicious/noArrayIndexKey: rows have no name of their own, and a state may stand twice while it is chosen
          <div key={i} className="flex items-end gap-2">
            <div className="grid grow grid-cols-2 gap-2">
              <SelectField
                label={t`What`}
                value={x.state}
                options={states.map((s) => ({ value: s.id, label: told(s.label) }))}
                onChange={(id) => change(i, id, valuesOf(id)[0]?.id ?? unknown)}
              />
              <SelectField
                label={t`Is then`}
                value={x.to}
                options={valuesOf(x.state).map((v) => ({ value: v.id, label: told(v.label) }))}
                onChange={(to) => change(i, x.state, to)}
              />
            </div>
            <Away label={t`Take it out`} onClick={() => onChange(without(sets, i))} />
          </div>
        ) : (
          <p key={x.state} className="figure text-[0.95rem]">
            {JSON.stringify(x)}
          </p>
        ),
      )}
    </Rows>
  )
}
