import type { Shift } from '@geolabe/contract'
import {
  admits,
  apply,
  type Condition,
  factsOf,
  type Machine,
  type OrderAct,
  orderOf,
  type Permission,
  type ProcedureFile,
  type partOfPlan,
  type Reckoning,
  type Short,
  type World,
  withPlan,
} from '@geolabe/core'
import { useEffect, useMemo, useState } from 'react'
import { newId } from '../api/client'
import { outbox } from '../api/outbox'
import { putShift, useInstallation } from '../api/queries'
import { sealed } from '../api/seal'
import { t } from '../language/t'
import { type ShiftContext, useShiftContext } from './context'

/** An act as it is told; `at` where it happened before it is told. */
type Act = OrderAct extends infer E
  ? E extends OrderAct
    ? Omit<E, 'id' | 'at' | 'by' | 'device'> & { at?: string }
    : never
  : never
type Computed = Reckoning['computed']

/** Nothing is worked out before the calculators have come: what rests on them is not known yet. */
const notYet: Reckoning = { computed: () => null, shortOf: () => null }

/** The calculators, where an order asks for them; they come by themselves, also without a network. */
function useReckoning(machine: Machine): Reckoning {
  const [by, setBy] = useState(notYet)
  const wanted = useMemo(() => JSON.stringify(machine.procedures).includes('"calc"'), [machine])
  useEffect(() => {
    if (wanted) void import('./computed-by').then(({ reckonedBy }) => setBy(reckonedBy(machine)))
  }, [wanted, machine])
  return by
}

/** What ages is looked at again so often, milliseconds. */
const look_ms = 5000

/** The moment; it goes on by itself only where something of this order ages. */
function useNow(f: ProcedureFile): number {
  const [now, setNow] = useState(() => Date.now())
  const ages = useMemo(() => f.states.some((s) => s.lostAfter_s !== undefined), [f])
  useEffect(() => {
    if (!ages) return
    const timer = setInterval(() => setNow(Date.now()), look_ms)
    return () => clearInterval(timer)
  }, [ages])
  return now
}

/** Whether acts may be taken in, each after the one before it; the first refusal. */
function admitsAll(f: ProcedureFile, from: World, events: readonly OrderAct[], computed: Computed): Permission {
  let w = from
  for (const e of events) {
    const verdict = admits(f, w, e, computed)
    if ('refused' in verdict) return verdict
    w = apply(f, w, e)
  }
  return { ok: true }
}

type Planned = ReturnType<typeof partOfPlan>

export interface Order {
  file: ProcedureFile
  world: World
  asking: { now_ms: number; computed: Computed }
  /** How much is missing to a need that is measured or computed; null: nothing, or it is no figure. */
  shortOf: (c: Condition) => Short | null
  /** Tells acts, in their order; the first that may not be done is answered and nothing told. */
  tell: (acts: readonly Act[]) => Promise<Permission>
  /** The second of two people confirms; who it was the records tell, as soon as they have it: the device keeps the PIN sealed. */
  second: (step: string, who: { badge: string; pin: string }) => Promise<void>
  error: unknown
}

/**
 * The order of work of this shift's machine, judged on this device by the same engine as on the server.
 *
 * @param plan what is planned and not recorded yet; told before the first act that rests on it
 */
export const useOrder = (plan?: Planned): Order => useOrderOf(useShiftContext(), plan)

/** The same for what stands beside the stations. */
export function useOrderOf({ shift, file: machine, place }: ShiftContext, plan?: Planned): Order {
  const now_ms = useNow(machine.definition.procedures)
  const [error, setError] = useState<unknown>(null)
  const sealKey = useInstallation().data?.sealKey
  const stood = useMemo(() => orderOf(machine.definition, shift, place), [machine, shift, place])
  const { computed, shortOf } = useReckoning(machine.definition)
  const ahead =
    plan !== undefined && Object.entries(plan).some(([k, v]) => JSON.stringify(stood.world.plan[k]) !== JSON.stringify(v))
  // What is planned anew takes back what rested on the old plan, before it is told as after.
  const world = ahead && plan ? withPlan(stood.file, stood.world, plan, now_ms) : stood.world
  // What is told in one has one moment, so that it can be taken back in one.
  const dated = (acts: readonly Act[], by = shift.operator) => {
    const at = new Date().toISOString()
    return acts.map((a) => ({ at, ...a, by, device: '', id: newId() }) as OrderAct)
  }
  const told = async (send: () => Promise<Shift | null>) => {
    setError(null)
    try {
      const answered = await send()
      if (answered) putShift(shift.id, answered)
    } catch (e) {
      setError(e)
    }
  }
  // What this device knew as it was done: one that was away is told what it had not seen.
  const after = shift.order.at(-1)?.id ?? null
  const tell: Order['tell'] = async (acts) => {
    const events = dated(ahead ? [{ do: 'plan', plan }, ...acts] : acts)
    // Asked as it stands here; the records ask again.
    const verdict = admitsAll(stood.file, world, events, computed)
    if ('refused' in verdict) return verdict
    await told(() => outbox.sendPatiently<Shift, 'do-order'>('do-order', { shift: shift.id }, { events, after }))
    return verdict
  }
  const second: Order['second'] = (step, { badge, pin }) =>
    told(async () => {
      const [event] = dated([{ do: 'second', step }], { id: `badge:${badge}`, name: t`Badge ${badge}` })
      if (!event || !sealKey) throw new Error(t`The second person’s PIN needs the network once on this device.`)
      const body = { events: [event], after, second: { sealed: await sealed(sealKey, { badge, pin, event: event.id }) } }
      return outbox.sendPatiently<Shift, 'do-order'>('do-order', { shift: shift.id }, body)
    })
  const asking = { now_ms, computed }
  const short = (c: Condition) => shortOf(c, factsOf(stood.file, world, asking))
  return { ...stood, world, asking, shortOf: short, tell, second, error }
}
