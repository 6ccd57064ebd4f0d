import { type Machine, Refusal, stopsOf, supportOf } from '@geolabe/core'
import { useState } from 'react'
import { useMachine, useYard } from '../api/queries'
import { t, told } from '../language/t'
import { stopWords } from '../language/words'
import { Button } from '../look/button'
import { SelectField } from '../look/field'
import { isObj, type Obj } from './schema'

type Stops = Readonly<Record<string, string>>

const outriggersOf = (machine: Machine) => machine.outriggers ?? []
/** As set; what nobody has set is as far out as it goes. */
const stopOf = (o: ReturnType<typeof outriggersOf>[number], set: Stops) => set[o.id] ?? stopsOf(o).at(-1)?.id ?? ''

/** Where the feet stand at these stops; else why that cannot be said. */
function feetAt(machine: Machine, set: Stops): { feet: readonly { id: string; x_m: number; y_m: number }[]; why: string } {
  const on = outriggersOf(machine)
  if (on.length === 0) return { feet: [], why: t`${machine.name} stands on no outriggers.` }
  const state = machine.supportStates?.find((s) => s.on === 'outriggers')
  const outriggers = on.map((o) => ({
    id: o.id,
    at: { stop: stopOf(o, set) },
    mat: null,
    ground: null,
    stroke_m: o.stroke.min_m,
  }))
  try {
    return { feet: supportOf(machine, { on: 'outriggers', ...(state && { state: state.id }), outriggers }).contacts, why: '' }
  } catch (e) {
    if (e instanceof Refusal) return { feet: [], why: told(e.message) }
    throw e
  }
}

/** The input with its feet where the stops put them; all else of it as it was. */
export function withFeet(input: Obj, field: string, feet: readonly { id: string; x_m: number; y_m: number }[]): Obj {
  const before = Array.isArray(input[field]) ? input[field] : []
  return { ...input, [field]: feet.map(({ id, x_m, y_m }, i) => ({ ...(isObj(before[i]) ? before[i] : {}), id, x_m, y_m })) }
}

/** A machine of the yard and the marked stop of each outrigger, instead of measuring where its feet stand. */
export function MarkedStops({ field, input, onChange }: { field: string; input: Obj; onChange: (input: Obj) => void }) {
  const [id, setId] = useState('')
  const [set, setSet] = useState<Stops>({})
  const [taken, setTaken] = useState(false)
  const yard = useYard()
  const file = useMachine(id, id !== '')
  const machine = id === '' ? undefined : file.data?.definition
  const give = (m: Machine, stops: Stops) => {
    setSet(stops)
    const { feet } = feetAt(m, stops)
    if (feet.length === 0) return
    onChange(withFeet(input, field, feet))
    setTaken(true)
  }
  const machines = yard.data?.machines ?? []
  if (machines.length === 0) return null
  const { feet, why } = machine ? feetAt(machine, set) : { feet: [], why: '' }
  return (
    <fieldset className="rounded-lg border border-line bg-sheet p-2.5">
      <legend className="px-1 text-[0.92rem] font-bold">{t`By marked stops`}</legend>
      <div className="grid grid-cols-[repeat(auto-fill,minmax(11.5rem,1fr))] items-end gap-x-3 gap-y-2.5">
        <SelectField
          label={t`Machine`}
          value={id}
          options={[{ value: '', label: t`Measured instead` }, ...machines.map((m) => ({ value: m.id, label: m.name }))]}
          onChange={(to) => {
            setSet({})
            setTaken(false)
            setId(to)
          }}
        />
        {machine &&
          outriggersOf(machine).map((o) => (
            <SelectField
              key={o.id}
              label={o.label}
              value={stopOf(o, set)}
              options={stopsOf(o).map((s) => ({ value: s.id, label: stopWords(s.id, s.label) }))}
              onChange={(to) => give(machine, { ...set, [o.id]: to })}
            />
          ))}
      </div>
      {why && (
        <p role="status" className="mt-2">
          {why}
        </p>
      )}
      {machine && feet.length > 0 && (
        <p className="mt-2 flex flex-wrap items-center gap-x-3">
          <Button onClick={() => give(machine, set)}>{t`Take these stops`}</Button>
          <span role="status" className="text-quiet">
            {taken && t`Where its feet stand is filled in. The rest is not of this machine: look at it.`}
          </span>
        </p>
      )}
    </fieldset>
  )
}
