import { type LiftRecord, type OutcomeRequest, outcomeRequest, type Shift } from '@geolabe/contract'
import {
  fittedOf,
  isGantry,
  isProvable,
  isRunway,
  isStraddle,
  isTruck,
  liftsOnHook,
  type Machine,
  nominal,
  orderOf,
  owedAt,
  tows,
} from '@geolabe/core'
import { lazy, Suspense, useState } from 'react'
import { Link, useNavigate } from 'react-router'
import { newId } from '../api/client'
import { outbox } from '../api/outbox'
import { putShift, useOutbox } from '../api/queries'
import { rich } from '../language/rich'
import { plural, t } from '../language/t'
import { Button } from '../look/button'
import { Dialog } from '../look/dialog'
import { Form, TextEntry, useEntry } from '../look/form'
import { ActionBar, Refused, Title } from '../look/page'
import { Sheets } from '../look/sheets'
import { Station } from '../look/station'
import { VerdictMark } from '../look/verdict'
import { clock } from '../look/when'
import { useShiftContext } from '../order/context'
import { OrderStationPage } from '../order/order-station'
import { OrderAtLift, OrderBeside, openAtLift, openSteps } from '../order/steps'
import { useOrder } from '../order/use-order'
import { plainPoint, seenAs, stepOf } from '../prove/draft'
import { Findings } from '../prove/findings'
import { VerdictBand } from '../prove/verdict-band'
import { HandSignals } from '../signals/hand-signals'
import { useSay } from '../units/units'

// Of three drawings one is shown: each comes with what it draws.
const GantryView = lazy(() => import('../gantry/gantry-view').then((m) => ({ default: m.GantryView })))
const StraddleView = lazy(() => import('../straddle/straddle-view').then((m) => ({ default: m.StraddleView })))
const LiftDrawing = lazy(() => import('../prove/lift-drawing').then((m) => ({ default: m.LiftDrawing })))
const BeamView = lazy(() => import('../runway/beam-view').then((m) => ({ default: m.BeamView })))
const TowView = lazy(() => import('../tow/tow-view').then((m) => ({ default: m.TowView })))
const ReachView = lazy(() => import('../truck/reach-view').then((m) => ({ default: m.ReachView })))
const TruckView = lazy(() => import('../truck/truck-view').then((m) => ({ default: m.TruckView })))

/** Station: the proven lift, its last confirmations, and how it ended. */
export function Lift() {
  const { shift, file } = useShiftContext()
  const { waiting } = useOutbox()
  const order = useOrder()
  const isSetUp = shift.setups.length > 0
  const owed = isSetUp && openSteps(order, 'setup') > 0
  const kept = waiting.filter((w) => w.what === 'prove-lift' && w.params.shift === shift.id).length
  if (!isProvable(file.definition)) return <OrderStationPage station="lift" />
  const open = [...shift.lifts].reverse().find((l) => !l.outcome)
  if (open) return <OneLift key={open.id} lift={open} />
  return (
    <>
      <Title below={kept > 0 ? t`Kept on this device.` : t`No lift is waiting.`}>{t`Lift`}</Title>
      {kept > 0 && (
        <p role="status" className="mb-3 text-lg">
          {plural(kept, {
            one: 'One proof waits for the network. Nothing is lifted before the records have it.',
            other: '# proofs wait for the network. Nothing is lifted before the records have it.',
          })}
        </p>
      )}
      {owed ? (
        <div className="mt-3 max-w-2xl">
          <OrderAtLift order={order} />
        </div>
      ) : (
        <>
          <Again shift={shift} machine={file.definition} stopped={file.stopping.length > 0} />
          {isSetUp && (
            <div className="mt-3 grid max-w-2xl gap-2">
              <OrderBeside order={order} station="lift" />
            </div>
          )}
        </>
      )}
      <LiftsSoFar shift={shift} machine={file.definition} />
      <ActionBar>
        <Link
          className="flex min-h-14 items-center rounded-lg border-2 border-ink px-6 font-bold"
          to={`/shifts/${shift.id}/stow`}
        >{t`Stow & hand over`}</Link>
        <Link
          className="flex min-h-16 items-center rounded-lg border-2 border-ink bg-accent px-7 text-lg font-bold text-on-accent"
          to={`/shifts/${shift.id}/prove`}
        >{t`Prove ${shift.lifts.length > 0 ? t`another lift` : t`a lift`}`}</Link>
      </ActionBar>
    </>
  )
}

/** The last one over again: proved anew with what it was proved with, and recorded as done. One touch a load. */
function Again({ shift, machine, stopped }: { shift: Shift; machine: Machine; stopped: boolean }) {
  const say = useSay()
  const last = shift.lifts.at(-1)
  const [error, setError] = useState<unknown>(null)
  const [busy, setBusy] = useState(false)
  const inside = last?.assessment.verdict === 'inside' || last?.assessment.verdict === 'near'
  // Where the machine was set up anew since, or stopped, it is another question.
  if (last?.outcome?.outcome !== 'done' || !inside || stopped || last.setup !== shift.setups.at(-1)?.id) return null
  const { wind_mps, roofShut } = last.conditions
  const wind = roofShut || wind_mps === null ? null : nominal(wind_mps)
  const again = async () => {
    setError(null)
    setBusy(true)
    const { setup, plan, conditions } = last
    const id = newId()
    try {
      const proved = await outbox.send<Shift>('prove-lift', { shift: shift.id }, { id, setup, plan, conditions })
      putShift(shift.id, proved)
      // What a load like the last one still asks for is done at the lift; where nothing is left it is done.
      const { file, world } = orderOf(machine, proved)
      if (owedAt(file, world, 'lift', { now_ms: Date.now(), computed: () => null }).length === 0) {
        const outcome = { outcome: 'done' as const, reason: '' }
        putShift(shift.id, await outbox.send<Shift>('end-lift', { shift: shift.id, lift: id }, outcome))
      }
    } catch (e) {
      setError(e)
    }
    setBusy(false)
  }
  return (
    <div className="mt-3 grid justify-items-start gap-1">
      <Button
        look="next"
        disabled={busy}
        onClick={() => void again()}
      >{t`Another like it: ${last.plan.hung.load.name || t`the same load`}`}</Button>
      <p
        className={wind === null ? 'text-quiet' : 'font-semibold'}
      >{t`Same load, way and heights${wind === null ? '' : t`, wind up to ${say('speed', wind)}`}. Anything else: prove it.`}</p>
      <Refused error={error} />
    </div>
  )
}

/** What carries a load, as it is said. */
function carriedOn(machine: Machine, { plan }: LiftRecord): string {
  if (plan.steps[0]?.do === 'tow') return t`On the arm`
  if (isTruck(machine)) return t`On the forks`
  if (isGantry(machine)) return t`Between the towers`
  return isStraddle(machine) ? t`In the slings` : t`On the hook`
}

/** So many of the last lifts are shown; those before are folded. */
const lately = 4

/** What this shift has lifted, the last first. */
function LiftsSoFar({ shift, machine }: { shift: Shift; machine: Machine }) {
  if (shift.lifts.length === 0) return null
  const rows = shift.lifts.toReversed().map((l) => <LiftLine key={l.id} lift={l} machine={machine} />)
  const earlier = rows.slice(lately)
  return (
    <section aria-label={t`Lifts of this shift`} className="mt-4 grid gap-2">
      <h2>{plural(rows.length, { one: '# lift this shift', other: '# lifts this shift' })}</h2>
      <ul className="grid gap-2">{rows.slice(0, lately)}</ul>
      {earlier.length > 0 && (
        <details>
          <summary className="min-h-10 cursor-pointer py-1.5 text-quiet">
            {plural(earlier.length, { one: '# earlier', other: '# earlier' })}
          </summary>
          <ul className="grid gap-2">{earlier}</ul>
        </details>
      )}
    </section>
  )
}

function LiftLine({ lift: l, machine }: { lift: LiftRecord; machine: Machine }) {
  const say = useSay()
  return (
    <li className="flex items-center gap-3 rounded-xl border border-line bg-sheet p-3">
      <VerdictMark verdict={l.assessment.verdict} />
      <span className="grow">
        <strong>{l.plan.hung.load.name || t`Load`}</strong>,{' '}
        {l.assessment.hookLoad_kg === null
          ? t`mass not known`
          : `${say('mass', l.assessment.hookLoad_kg)} ${carriedOn(machine, l).toLowerCase()}`}
      </span>
      <span>{l.outcome ? `${l.outcome.outcome === 'done' ? t`Done` : t`Abandoned`} ${clock(l.outcome.at)}` : t`Waiting`}</span>
    </li>
  )
}

function OneLift({ lift }: { lift: LiftRecord }) {
  const { shift, file, place } = useShiftContext()
  const machine = file.definition
  const say = useSay()
  const navigate = useNavigate()
  const orderNow = useOrder()
  const [abandon, setAbandon] = useState(false)
  const [tab, setTab] = useState<'order' | 'cautions' | 'findings'>('order')
  const [opened, setOpened] = useState('')
  const [error, setError] = useState<unknown>(null)
  const a = lift.assessment
  const setup = shift.setups.find((s) => s.id === lift.setup)
  const stale = shift.setups[shift.setups.length - 1]?.id !== lift.setup
  const proven = a.verdict === 'inside' || a.verdict === 'near'
  const open = openAtLift(orderNow)
  const stopped = file.stopping.length > 0
  const why = stopped
    ? t`The machine is stopped.`
    : stale
      ? t`Set up anew since; prove it again.`
      : !proven
        ? t`Not inside its limits; it cannot be lifted.`
        : open > 0
          ? plural(open, { one: '# step to confirm.', other: '# steps to confirm.' })
          : ''

  const send = async (body: OutcomeRequest) => {
    setError(null)
    try {
      putShift(shift.id, await outbox.send<Shift>('end-lift', { shift: shift.id, lift: lift.id }, body))
      setAbandon(false)
      navigate(`/shifts/${shift.id}/lift`)
    } catch (e) {
      setError(e)
    }
  }
  const towing = lift.plan.steps[0]?.do === 'tow'
  const step = stepOf(lift.plan)
  const seen = liftsOnHook(machine) && !towing ? seenAs(machine, step) : null
  const ends = seen && { pickUp: plainPoint(seen.pickUp), setDown: plainPoint(seen.setDown) }
  return (
    <>
      <Station
        first="sheet"
        title={t`Lift: ${lift.plan.hung.load.name || t`the load`}`}
        below={a.configuration ? t`Computer on: ${a.configuration.label}` : undefined}
        head={
          <>
            <VerdictBand
              assessment={a}
              on={carriedOn(machine, lift)}
              rated={isGantry(machine) ? t`Least rated tower` : undefined}
            />
            {ends && (
              <p className="leading-snug">{rich`Pick up at ${<strong className="figure">{say('length', ends.pickUp.radius_m)}</strong>}, ${step.do === 'slew' ? t`slew ${step.slewDirection}` : t`through ${step.waypoints.length} poses`} to ${<strong className="figure">{say('angle', ends.setDown.slew_deg)}</strong>}, set down at ${<strong className="figure">{say('length', ends.setDown.radius_m)}</strong>}. Wind up to ${<strong className="figure">{a.windLimit_mps === null ? '–' : say('speed', a.windLimit_mps)}</strong>}.`}</p>
            )}
            <Refused error={error} />
          </>
        }
        drawing={
          <Suspense>
            {liftsOnHook(machine) && setup && seen ? (
              <LiftDrawing
                label={t`The lift as it was proved`}
                machine={machine}
                place={place}
                setup={setup.plan}
                tables={file.tables}
                wind={lift.conditions.wind_mps}
                seen={seen}
                assessment={a}
                posts={lift.plan.crew?.posts}
                stands={lift.plan.crew?.stands}
              />
            ) : towing && tows(machine) ? (
              <TowView machine={machine} lift={lift.plan} assessment={a} />
            ) : isRunway(machine) ? (
              <BeamView machine={machine} lift={lift.plan} assessment={a} />
            ) : isGantry(machine) && setup?.plan.standing.on === 'towers' ? (
              <GantryView machine={machine} standing={setup.plan.standing} lift={lift.plan} tables={file.tables} assessment={a} />
            ) : isStraddle(machine) && setup?.plan.standing.on === 'frame' ? (
              <StraddleView machine={machine} standing={setup.plan.standing} lift={lift.plan} assessment={a} />
            ) : isTruck(machine) && machine.truck.reach && setup ? (
              <ReachView machine={machine} lift={lift.plan} setup={setup.plan} tables={file.tables} assessment={a} />
            ) : isTruck(machine) && setup ? (
              <TruckView
                machine={machine}
                lift={lift.plan}
                fitted={fittedOf(machine.truck, { setup: setup.plan, lift: lift.plan })}
                assessment={a}
              />
            ) : null}
          </Suspense>
        }
        sheet={
          <Sheets
            label={t`The lift`}
            open={tab}
            onOpen={setTab}
            tabs={[
              {
                id: 'order',
                name: t`In order`,
                body: <OrderAtLift order={orderNow} />,
              },
              { id: 'cautions', name: t`Cautions`, body: <Cautions of={machine} /> },
              { id: 'findings', name: t`Findings`, body: <Findings assessment={a} open={opened} onOpen={setOpened} /> },
            ]}
          />
        }
        why={why}
        actions={
          <>
            <Button onClick={() => setAbandon(true)}>{t`Abandon this lift`}</Button>
            {(stale || !proven) && (
              <Link
                className="flex min-h-16 items-center rounded-lg border-2 border-ink bg-accent px-7 text-lg font-bold text-on-accent"
                to={`/shifts/${shift.id}/prove`}
              >{t`Prove it again`}</Link>
            )}
            {!stale && proven && (
              <Button
                look="next"
                disabled={why !== ''}
                onClick={() => void send({ outcome: 'done', reason: '' })}
              >{t`Lifted and landed`}</Button>
            )}
          </>
        }
      />
      <Dialog open={abandon} onClose={() => setAbandon(false)} title={t`Abandon this lift`}>
        <Abandon onSend={(outcome) => void send(outcome)} />
      </Dialog>
    </>
  )
}

/** What to look out for; and the signals, where its order asks for them to be agreed. */
const Cautions = ({ of: { cautions, procedures } }: { of: Machine }) => (
  <>
    <ul className="grid gap-2">
      {cautions.map((c) => (
        <li key={c} className="border-l-4 border-near pl-3">
          {c}
        </li>
      ))}
    </ul>
    {procedures.states.some((s) => s.id === 'signals') && (
      <section className="mt-4 grid gap-2">
        <h2>{t`Signals`}</h2>
        <HandSignals />
      </section>
    )}
  </>
)

function Abandon({ onSend }: { onSend: (outcome: OutcomeRequest) => void }) {
  const form = useEntry(outcomeRequest, { outcome: 'abandoned', reason: '' })
  return (
    <Form onSubmit={form.handleSubmit(onSend)} className="grid gap-4">
      <TextEntry control={form.control} name="reason" label={t`Why`} rows={3} autoFocus />
      <Button look="next" type="submit">{t`Record as abandoned`}</Button>
    </Form>
  )
}
