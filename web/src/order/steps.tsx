import {
  ahead,
  isAwaited,
  isDone,
  type Last,
  type Need,
  nextTold,
  offered,
  type Procedure,
  type ProcedureStep,
  permitted,
  reached,
  stepsNow,
  toConfirm,
} from '@geolabe/core'
import clsx from 'clsx'
import { type ReactNode, useEffect, useRef, useState } from 'react'
import { plural, t, told } from '../language/t'
import { Button } from '../look/button'
import { Refused } from '../look/page'
import { Tick } from '../look/tick'
import { AgreedSignals } from '../signals/hand-signals'
import { useSay } from '../units/units'
import { AsItIs } from './as-it-is'
import { Halted } from './halted'
import { HeldStep } from './held-step'
import { Planned, Readings, useReadings, useSayRead } from './measured'
import { SecondPerson } from './second-person'
import type { Order } from './use-order'

/** How many acts of a station's procedures are still open; nought: it may go on. */
export function openSteps({ file, world, asking }: Order, station: Procedure['station']): number {
  return offered(file, world, station, asking)
    .filter((p) => isAwaited(file, world, p, asking) && !reached(file, world, p, asking))
    .reduce((n, p) => n + Math.max(1, stepsNow(file, world, p, asking).filter((s) => !isDone(file, world, s, asking)).length), 0)
}

/** The procedures of a station, in order: what is done, what is next, and for everything else what it waits for. */
export function OrderSteps({ order, station }: { order: Order; station: Procedure['station'] }) {
  const { file, world, asking } = order
  const all = offered(file, world, station, asking)
  const required = all.filter((p) => isAwaited(file, world, p, asking))
  // While something is held nothing is asked: eyes stay on the machine, and what it moves is known once it is let go.
  const resting = world.holding ? [] : required
  const asked = resting.filter((p) => !reached(file, world, p, asking)).flatMap((p) => toConfirm(file, world, p, asking))
  const unknown = asked.filter((x, i) => asked.findIndex((y) => y.state === x.state) === i)
  return (
    <div className="grid gap-4">
      <Refused error={order.error} />
      <Halted order={order} />
      {unknown.length > 0 ? (
        <AsItIs order={order} asked={unknown} />
      ) : (
        required.map((p) => <OneProcedure key={p.id} procedure={p} order={order} named={required.length > 1} />)
      )}
      <OrderBeside order={order} station={station} />
    </div>
  )
}

/** So many acts keep a lift from being recorded: its own, and those of the set-up that were lost since. */
export const openAtLift = (order: Order): number => openSteps(order, 'setup') + openSteps(order, 'lift')

/** The order at the lift; where something of the set-up was lost meanwhile, that comes first. */
export function OrderAtLift({ order }: { order: Order }) {
  if (openSteps(order, 'setup') === 0) return <OrderSteps order={order} station="lift" />
  return (
    <section aria-label={t`Before it goes on`} className="grid gap-2">
      <h2>{t`Before it goes on`}</h2>
      <OrderSteps order={order} station="setup" />
    </section>
  )
}

/** What there is at a station besides what it waits for. */
export function OrderBeside({ order, station }: { order: Order; station: Procedure['station'] }) {
  const { file, world, asking } = order
  return offered(file, world, station, asking)
    .filter((p) => !isAwaited(file, world, p, asking))
    .map((p) => (
      <details key={p.id} className="rounded-lg border border-line p-3">
        <summary className="min-h-10 cursor-pointer font-semibold">{told(p.label)}</summary>
        <Beside procedure={p} order={order} />
      </details>
    ))
}

/** What brings it back to where nothing hangs or is raised, first; nothing where it is there already. */
export function OrderBack({ order }: { order: Order }) {
  const { file, world, asking } = order
  return offered(file, world, 'lift', asking)
    .filter((p) => p.back && !reached(file, world, p, asking))
    .map((p) => (
      <section key={p.id} aria-label={told(p.label)} className="rounded-lg border-2 border-near p-3">
        <h3>{t`${told(p.label)} first`}</h3>
        <Beside procedure={p} order={order} />
      </section>
    ))
}

/** A procedure that is there when it is wanted: a change of tool, a charge, a rescue. */
function Beside({ procedure, order }: { procedure: Procedure; order: Order }) {
  const unknown = toConfirm(order.file, order.world, procedure, order.asking)
  return (
    <div className="mt-2">
      {unknown.length > 0 && <AsItIs order={order} asked={unknown} />}
      <OneProcedure procedure={procedure} order={order} named={false} />
    </div>
  )
}

/** So many steps to come are shown with the one that is next; the others are folded. */
const shown = 2

/** One procedure: what was done last, so that a slip is taken back; what is next, always in the same place; what comes after. */
function OneProcedure({ procedure, order, named }: { procedure: Procedure; order: Order; named: boolean }) {
  const { file, world, asking } = order
  const [asked, setAsked] = useState<string | null>(null)
  const steps = stepsNow(file, world, procedure, asking)
  const n = ahead(file, world, procedure, asking)
  const together = nextTold(file, world, procedure, asking)
  const here = together.at(-1) ?? ('blocked' in n ? n.blocked : null)
  const first = together.slice(0, -1)
  const done = steps.filter((s) => isDone(file, world, s, asking))
  const last = done.find((s) => s.id === world.last?.step)
  const before = done.filter((s) => s !== last)
  // At its goal nothing more comes, whatever it would ask where that is lost.
  const coming = here === null ? [] : steps.filter((s) => !together.includes(s) && s !== here && !done.includes(s))
  // What was read and keeps the step from being done that is asked about, or is next: it can be read again.
  const kept = steps.find((s) => s.id === asked) ?? here
  const verdict = kept && permitted(file, world, kept.id, asking)
  const remedies = verdict && 'refused' in verdict ? verdict.unmet.map((u) => u.remedy) : []
  const row = (s: ProcedureStep) => (
    <li
      key={s.id}
      id={`step-${s.id}`}
      aria-current={s === here ? 'step' : undefined}
      data-acts={s === here ? first.length + 1 : 1}
    >
      <Row
        step={s}
        first={s === here ? first : []}
        order={order}
        isHere={s === here}
        isAsked={s.id === asked}
        isRemedy={remedies.includes(s.id)}
        onAsk={setAsked}
      />
    </li>
  )
  return (
    <section aria-label={told(procedure.label)} className="grid gap-2">
      {named && (
        <h2>
          {told(procedure.label)}{' '}
          <span className="text-base font-normal text-quiet">
            {here === null
              ? t`done`
              : plural(coming.length + Math.max(1, together.length), { one: '# step to come', other: '# steps to come' })}
          </span>
        </h2>
      )}
      <Folded words={plural(before.length, { one: '# step done', other: '# steps done' })} steps={before.map(row)} />
      <ol className="grid gap-2">
        {last && row(last)}
        {here && row(here)}
        {coming.slice(0, shown).map(row)}
      </ol>
      <Folded
        words={plural(coming.length - shown, { one: '# more to come', other: '# more to come' })}
        steps={coming.slice(shown).map(row)}
      />
    </section>
  )
}

function Folded({ words, steps }: { words: string; steps: ReactNode[] }) {
  if (steps.length === 0) return null
  return (
    <details>
      <summary className="min-h-10 cursor-pointer py-1.5 text-quiet">{words}</summary>
      <ol className="grid gap-2">{steps}</ol>
    </details>
  )
}

/** The next step comes where the last one was: a second tap of the same finger is not for it. */
const second_tap_ms = 350
function useJustCame(here: boolean): boolean {
  const [came, setCame] = useState(false)
  useEffect(() => {
    if (!here) return
    setCame(true)
    const timer = setTimeout(() => setCame(false), second_tap_ms)
    return () => clearTimeout(timer)
  }, [here])
  return here && came
}

interface RowProps {
  step: ProcedureStep
  /** What hands were full with before it, told with it. */
  first: ProcedureStep[]
  order: Order
  isHere: boolean
  isAsked: boolean
  /** Doing it again may help what is kept back. */
  isRemedy: boolean
  onAsk: (step: string | null) => void
}

function Row({ step, first, order, isHere, isAsked, isRemedy, onAsk }: RowProps) {
  const { file, world, asking } = order
  const done = isDone(file, world, step, asking)
  const verdict = permitted(file, world, step.id, asking)
  // Of what is told in one each is judged after the one before it: nothing of it waits.
  const waits = 'refused' in verdict && first.length === 0 ? verdict.unmet : []
  const may = !done && waits.length === 0
  const waiting = world.waiting?.step === step.id
  const note = may || done || isHere
  const justCame = useJustCame(isHere)
  const readings = useReadings(step, order.world)
  // What it asks to be read off is told with it, in one.
  const tellRead = async (acts: Parameters<Order['tell']>[0]) => {
    const read = readings.acts()
    if (!read) return
    onAsk(null)
    const answer = await order.tell([...read, ...acts])
    if ('refused' in answer) onAsk(step.id)
    else readings.taken()
  }
  const confirm = () => tellRead([...first, step].map((x) => ({ do: 'confirm', step: x.id })))
  const refuse = () => {
    onAsk(step.id)
    return order.tell([{ do: 'refused', step: step.id, unmet: waits.map((w) => w.id) }])
  }
  const takeBack = async () => {
    const slip = world.last?.step === step.id ? toldInOne(world.last).map((x) => ({ do: 'mistap' as const, of: x.event })) : []
    if (slip.length > 0 && 'ok' in (await order.tell(slip))) return
    onAsk(step.id)
  }
  const again = done && (step.repeats || (isRemedy && step.measures.length > 0))
  return (
    <div className={clsx(isHere && 'rounded-lg outline-3 outline-accent outline-offset-1')}>
      {step.hold && may ? (
        <HeldStep step={step} order={order} onBegin={() => void tellRead([{ do: 'hold-begin', step: step.id }])} />
      ) : (
        <Tick
          checked={done || waiting}
          disabled={justCame}
          onChange={(v) => void (v ? (may ? confirm() : refuse()) : takeBack())}
          note={note ? <StepNote step={step} done={done} /> : null}
        >
          {first.length > 0 ? <HandsFull steps={[...first, step]} /> : <StepName step={step} />}
        </Tick>
      )}
      {isHere && !done && step.signals.length > 0 && <AgreedSignals signals={step.signals} />}
      {isHere && !done && <Planned step={step} order={order} />}
      {((may && isHere) || again) && step.measures.length > 0 && (
        <Readings
          step={step}
          readings={readings}
          order={order}
          enter={
            step.hold
              ? null
              : {
                  label: done ? t`Once more: ${told(step.label)}` : t`Done`,
                  on: () => void (waits.length === 0 ? confirm() : refuse()),
                }
          }
        />
      )}
      {again && step.measures.length === 0 && (
        <Button
          look="quiet"
          onClick={() => void (waits.length === 0 ? confirm() : refuse())}
        >{t`Once more: ${told(step.label)}`}</Button>
      )}
      {waiting && <SecondPerson step={step} order={order} />}
      {isAsked && done && !(again && waits.length > 0) && (
        <p role="status" className="mt-1 border-l-4 border-near pl-3 text-[0.95rem]">
          {t`Too long ago to be a slip, or something rests on it: do the steps in reverse, or say how it stands.`}
        </p>
      )}
      {((isAsked && (!done || again)) || (isHere && !may)) && waits.length > 0 && (
        <NotYet step={step} waits={waits} order={order} isAsked={isAsked} />
      )}
    </div>
  )
}

/** What a step was told in one with, the last first. */
const toldInOne = (x: Last | null): Last[] => (x ? [x, ...toldInOne(x.before)] : [])

/** What is done with both hands on the machine, in its order: read before, told when it is done. */
function HandsFull({ steps }: { steps: readonly ProcedureStep[] }) {
  return (
    <span className="block">
      <span className="block text-[0.92rem] font-normal text-quiet">{t`In this order, then one tap:`}</span>
      {steps.map((s, i) => (
        <span key={s.id} className="flex gap-2 py-0.5">
          <span className="figure w-5 shrink-0 text-quiet">{i + 1}</span>
          <span>
            <StepName step={s} />
            {i < steps.length - 1 && <StepNote step={s} />}
          </span>
        </span>
      ))}
    </span>
  )
}

/** What is said beside a step; what goes wrong with it, until it is done. */
const StepNote = ({ step: { detail, caution }, done = false }: { step: ProcedureStep; done?: boolean }) => (
  <>
    {detail && <span className="block text-[0.92rem] font-normal text-quiet">{told(detail)}</span>}
    {!done && caution && <span className="block text-[0.92rem] font-semibold text-near">{told(caution)}</span>}
  </>
)

/** What a step is, and of several alike which: the same words for each, and the one that is meant. */
export function StepName({ step: { label, member } }: { step: ProcedureStep }) {
  const end = member && `: ${member.label}`
  if (!member || !end || !label.endsWith(end)) return told(label)
  return (
    <>
      <span>{told(label.slice(0, -end.length))}</span> · <strong className="whitespace-nowrap">{told(member.label)}</strong>
    </>
  )
}

/** How much of a figure is missing, as it is said. */
function Missing({ order, need }: { order: Order; need: Need }) {
  const [say, sayRead] = [useSay(), useSayRead(order)]
  const short = order.shortOf(need.if)
  if (short === null) return null
  const { of, by } = short
  const said = 'calc' in of ? say(of.field.endsWith('_m') ? 'length' : 'angle', by) : sayRead(of.input, by)
  return <strong className="block">{of.near ? t`${said} further off than it may be.` : t`${said} are missing.`}</strong>
}

function NotYet({
  step,
  waits,
  order,
  isAsked,
}: {
  step: ProcedureStep
  waits: readonly Need[]
  order: Order
  isAsked: boolean
}) {
  const said = useRef<HTMLDivElement>(null)
  // Asked for by a tap it is seen at once, above the keys of the station.
  useEffect(() => {
    if (isAsked) said.current?.scrollIntoView({ block: 'nearest' })
  }, [isAsked])
  const there = waits.find((w) => w.remedy !== undefined)?.remedy
  const show = () => {
    const row = document.getElementById(`step-${there}`)
    row?.closest('details')?.setAttribute('open', '')
    row?.scrollIntoView({ block: 'center', behavior: 'smooth' })
  }
  const label = order.file.procedures.flatMap((p) => p.steps).find((s) => s.id === there)?.label
  return (
    <div ref={said} role="status" className="mt-1 scroll-mb-48 border-l-4 border-outside pl-3">
      <p className="font-semibold">{t`Not yet: ${told(step.label)}`}</p>
      <ul>
        {waits.slice(0, 3).map((w) => (
          <li key={w.id}>
            {told(w.because)}
            <Missing order={order} need={w} />
          </li>
        ))}
      </ul>
      {label && <Button look="quiet" onClick={show}>{t`Take me there: ${told(label)}`}</Button>}
    </div>
  )
}
