import { factsOf, isFarOff, type ProcedureStep, usualOf, type World } from '@geolabe/core'
import { useState } from 'react'
import { t, told } from '../language/t'
import { Button } from '../look/button'
import { TextField } from '../look/field'
import { editIn, editPlain, figureOf, parseIn, parsePlain, type System, typedFault, unitOf, usePreferences } from '../units/units'
import type { Order } from './use-order'

type Measure = ProcedureStep['measures'][number]

/** How a reading is typed and told: in whoever’s unit, or in the one its gauge is marked in. */
function readIn(within: Measure['in'], units: System) {
  if ('unit' in within) {
    const { unit } = within
    return {
      unit,
      parse: (s: string) => parsePlain(s),
      edit: (v: number) => editPlain(v),
      say: (v: number) => `${editPlain(v)} ${unit}`,
    }
  }
  const { quantity } = within
  const unit = unitOf(units, quantity).label
  const say = (v: number) => `${figureOf(units, quantity, v)}${unit === '°' ? '' : ' '}${unit}`
  return { unit, parse: (s: string) => parseIn(units, quantity, s), edit: (v: number) => editIn(units, quantity, v), say }
}

/** What is wrong with a typed reading; null: nothing, or nothing is typed. */
function faultOf(m: Measure, typed: string, units: System): string | null {
  const { unit, parse, edit } = readIn(m.in, units)
  const value = parse(typed)
  return (
    typedFault(typed) ??
    (value !== null && (value < m.min || value > m.max) ? t`Between ${edit(m.min)} and ${edit(m.max)} ${unit}.` : null)
  )
}

/** What is typed of a step’s readings, told in one with the step: nothing of it is told before. */
export function useReadings({ measures }: ProcedureStep, world: World) {
  const { units } = usePreferences()
  const [typed, setTyped] = useState<Readonly<Record<string, string>>>({})
  const [wanted, setWanted] = useState(false)
  const [doubted, setDoubted] = useState<readonly string[]>([])
  const of = (m: Measure) => typed[m.id] ?? ''
  /** The readings as acts; null: one is missing or cannot be, and it says so. */
  const acts = () => {
    const all = measures.flatMap((m) => {
      const value = faultOf(m, of(m), units) === null ? readIn(m.in, units).parse(of(m)) : null
      return value === null
        ? []
        : [
            {
              do: 'measure' as const,
              input: m.id,
              value,
              tolerance: typeof m.tolerance === 'number' ? m.tolerance : 0,
              again: doubted.includes(m.id),
            },
          ]
    })
    setWanted(all.length < measures.length)
    // Far from what was read before it is read once more, and then it stands.
    const far = all.filter((r) => !r.again && isFarOff(world, r.input, r)).map((r) => r.input)
    setDoubted([...doubted, ...far])
    return all.length < measures.length || far.length > 0 ? null : all
  }
  const taken = () => {
    setTyped({})
    setWanted(false)
    setDoubted([])
  }
  return { of, type: (m: Measure, v: string) => setTyped({ ...typed, [m.id]: v }), wanted, doubted, acts, taken }
}

/** The figures that a step asks for, each in its field. */
export function Readings({
  step,
  readings,
  order,
  enter,
}: {
  step: ProcedureStep
  readings: ReturnType<typeof useReadings>
  order: Order
  /** Tells it with the step, from under the last of its fields; null: the step is held, and begun above. */
  enter: { label: string; on: () => void } | null
}) {
  const { units } = usePreferences()
  const facts = factsOf(order.file, order.world, order.asking)
  return (
    <div className="mt-1 grid grid-cols-[repeat(auto-fit,minmax(8.5rem,1fr))] items-start gap-2 px-3 pb-2">
      {step.measures.map((m, i) => {
        // Of several read the same way it is said once.
        const how = step.measures.findIndex((x) => x.how === m.how) === i ? told(m.how) : ''
        const { unit, edit, say, parse } = readIn(m.in, units)
        const typed = readings.of(m)
        const known = order.world.read[m.id]
        const value = parse(typed)
        const tolerance = typeof m.tolerance === 'number' ? m.tolerance : 0
        const isDoubted = value !== null && readings.doubted.includes(m.id) && isFarOff(order.world, m.id, { value, tolerance })
        const far = isDoubted && known ? t`Far from ${say(known.value)}, read before: read it once more.` : undefined
        const isPlanned = typeof m.usual === 'object' && facts.plan(m.usual.plan) !== undefined
        const planned = isPlanned ? t`As planned: ${say(usualOf(m, facts))}.` : ''
        const read = known ? t`Read before: ${say(known.value)}.` : ''
        return (
          <div key={m.id} data-usual={edit(usualOf(m, facts))}>
            <TextField
              label={`${told(m.ask)}, ${unit}`}
              value={typed}
              onChange={(v) => readings.type(m, v)}
              inputMode="decimal"
              hint={[planned, read, how].filter((x) => x !== '').join(' ')}
              error={faultOf(m, typed, units) ?? (readings.wanted && typed.trim() === '' ? t`Needed.` : far)}
            />
          </div>
        )
      })}
      {enter && (
        <Button look="next" className="col-span-full w-fit" onClick={enter.on}>
          {enter.label}
        </Button>
      )}
    </div>
  )
}

/** How a figure of a need is told, where it is read off. */
export function useSayRead(order: Order) {
  const { units } = usePreferences()
  const all = order.file.procedures.flatMap((p) => p.steps.flatMap((s) => s.measures))
  return (input: string, by: number): string => {
    const m = all.find((x) => x.id === input)
    return m ? readIn(m.in, units).say(by) : String(by)
  }
}

/** Figures that are looked for while a step is done, as they are planned; none where nothing is planned. */
export function Planned({ step, order }: { step: ProcedureStep; order: Order }) {
  const { units } = usePreferences()
  const facts = factsOf(order.file, order.world, order.asking)
  // What is read off against its plan has it in its field.
  const all = (step.measures.length > 0 ? [] : step.planned).flatMap(({ label, plan, quantity }) => {
    const value = facts.plan(plan)
    return typeof value === 'number' ? [{ label, said: readIn({ quantity }, units).say(value) }] : []
  })
  if (all.length === 0) return null
  return (
    <div className="mt-1 flex flex-wrap gap-x-4 gap-y-1 pl-3">
      <span className="text-quiet">{t`As planned:`}</span>
      <dl className="contents">
        {all.map(({ label, said }) => (
          <div key={label} className="flex gap-1.5">
            <dt>{told(label)}</dt>
            <dd className="figure font-semibold">{said}</dd>
          </div>
        ))}
      </dl>
    </div>
  )
}
