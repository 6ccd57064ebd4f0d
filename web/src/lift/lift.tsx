import { type LiftRecord, type OutcomeRequest, outcomeRequest, type Shift } from '@geolabe/contract'
import { liftsOnOutriggers } from '@geolabe/core'
import { useState } from 'react'
import { Link, useNavigate } from 'react-router'
import { useDraft } from '../api/draft'
import { outbox } from '../api/outbox'
import { putShift } from '../api/queries'
import { Button } from '../look/button'
import { Dialog } from '../look/dialog'
import { Form, TextEntry, useEntry } from '../look/form'
import { ActionBar, Refused, Title } from '../look/page'
import { Sheets } from '../look/sheets'
import { Station } from '../look/station'
import { VerdictMark } from '../look/verdict'
import { clock } from '../look/when'
import { plainPoint, stepOf } from '../prove/draft'
import { Findings } from '../prove/findings'
import { LiftDrawing } from '../prove/lift-drawing'
import { VerdictBand } from '../prove/verdict-band'
import { useShiftContext } from '../shift/frame'
import { Sequence } from '../shift/sequence'
import { Steps } from '../shift/steps'
import { useSay } from '../units/units'

/** Station: the proven lift, its last confirmations, and how it ended. */
export function Lift() {
  const { shift, file } = useShiftContext()
  if (!liftsOnOutriggers(file.definition)) return <Sequence procedure="lift" />
  const open = [...shift.lifts].reverse().find((l) => !l.outcome)
  if (open) return <OneLift key={open.id} lift={open} />
  return (
    <>
      <Title below="No lift is waiting.">Lift</Title>
      <LiftsSoFar shift={shift} />
      <ActionBar why="Another lift is proved first; or stow and hand over.">
        <Link
          className="flex min-h-14 items-center rounded-lg border-2 border-ink px-6 font-bold"
          to={`/shifts/${shift.id}/stow`}
        >
          Stow & hand over
        </Link>
        <Link
          className="flex min-h-16 items-center rounded-lg border-2 border-ink bg-accent px-7 text-lg font-bold text-on-accent"
          to={`/shifts/${shift.id}/prove`}
        >
          Prove {shift.lifts.length > 0 ? 'another lift' : 'a lift'}
        </Link>
      </ActionBar>
    </>
  )
}

function LiftsSoFar({ shift }: { shift: Shift }) {
  const say = useSay()
  return (
    <ul className="grid gap-2">
      {shift.lifts.map((l) => (
        <li key={l.id} className="flex items-center gap-3 rounded-xl border border-line bg-sheet p-3">
          <VerdictMark verdict={l.assessment.verdict} />
          <span className="grow">
            <strong>{l.plan.hung.load.name || 'Load'}</strong>,{' '}
            {l.assessment.hookLoad_kg === null ? 'mass not known' : `${say('mass', l.assessment.hookLoad_kg)} on the hook`}
          </span>
          <span>{l.outcome ? `${l.outcome.outcome === 'done' ? 'Done' : 'Abandoned'} ${clock(l.outcome.at)}` : 'Waiting'}</span>
        </li>
      ))}
    </ul>
  )
}

function OneLift({ lift }: { lift: LiftRecord }) {
  const { shift, file, place } = useShiftContext()
  const machine = file.definition
  const say = useSay()
  const navigate = useNavigate()
  const [steps, setSteps, clear] = useDraft<string[]>(`${shift.id}.lift.${lift.id}`, [])
  const [abandon, setAbandon] = useState(false)
  const [tab, setTab] = useState<'order' | 'cautions' | 'findings'>('order')
  const [opened, setOpened] = useState('')
  const [error, setError] = useState<unknown>(null)
  const a = lift.assessment
  const setup = shift.setups.find((s) => s.id === lift.setup)
  const stale = shift.setups[shift.setups.length - 1]?.id !== lift.setup
  const proven = a.verdict === 'inside' || a.verdict === 'near'
  const open = machine.procedures.lift.filter((s) => !steps.includes(s.id)).length
  const stopped = file.stopping.length > 0
  const why = stopped
    ? 'The machine is stopped.'
    : stale
      ? 'Set up anew since; prove it again.'
      : !proven
        ? 'Not inside its limits; it cannot be lifted.'
        : open > 0
          ? `${open} ${open === 1 ? 'step' : 'steps'} to confirm.`
          : ''

  const send = async (body: OutcomeRequest) => {
    setError(null)
    try {
      putShift(shift.id, await outbox.send<Shift>('end-lift', { shift: shift.id, lift: lift.id }, body))
      clear()
      setAbandon(false)
      navigate(`/shifts/${shift.id}/lift`)
    } catch (e) {
      setError(e)
    }
  }
  const step = stepOf(lift.plan)
  const ends = { pickUp: plainPoint(step.pickUp), setDown: plainPoint(step.setDown) }
  return (
    <>
      <Station
        title={`Lift: ${lift.plan.hung.load.name || 'the load'}`}
        below={a.configuration ? `Machine’s computer on: ${a.configuration.label}` : undefined}
        head={
          <>
            <VerdictBand assessment={a} />
            <p className="leading-snug">
              Pick up at <strong className="figure">{say('length', ends.pickUp.radius_m)}</strong>, slew {step.slewDirection} to{' '}
              <strong className="figure">{say('angle', step.setDown.slew_deg)}</strong>, set down at{' '}
              <strong className="figure">{say('length', ends.setDown.radius_m)}</strong>. Wind up to{' '}
              <strong className="figure">{a.windLimit_mps === null ? '–' : say('speed', a.windLimit_mps)}</strong>.
            </p>
            <Refused error={error} />
          </>
        }
        drawing={
          liftsOnOutriggers(machine) && setup ? (
            <LiftDrawing
              label="The lift as it was proved"
              machine={machine}
              place={place}
              setup={setup.plan}
              step={step}
              assessment={a}
            />
          ) : null
        }
        sheet={
          <Sheets
            label="The lift"
            open={tab}
            onOpen={setTab}
            tabs={[
              {
                id: 'order',
                name: 'Before and at the trial lift',
                body: <Steps steps={machine.procedures.lift} confirmed={steps} onChange={setSteps} />,
              },
              { id: 'cautions', name: 'Cautions', body: <Cautions of={machine.cautions} /> },
              { id: 'findings', name: 'Findings', body: <Findings assessment={a} open={opened} onOpen={setOpened} /> },
            ]}
          />
        }
        why={why}
        actions={
          <>
            <Button onClick={() => setAbandon(true)}>Abandon this lift</Button>
            {(stale || !proven) && (
              <Link
                className="flex min-h-16 items-center rounded-lg border-2 border-ink bg-accent px-7 text-lg font-bold text-on-accent"
                to={`/shifts/${shift.id}/prove`}
              >
                Prove it again
              </Link>
            )}
            {!stale && proven && (
              <Button look="next" disabled={why !== ''} onClick={() => void send({ outcome: 'done', reason: '', steps })}>
                Lifted and landed
              </Button>
            )}
          </>
        }
      />
      <Dialog open={abandon} onClose={() => setAbandon(false)} title="Abandon this lift">
        <Abandon steps={steps} onSend={(outcome) => void send(outcome)} />
      </Dialog>
    </>
  )
}

const Cautions = ({ of }: { of: readonly string[] }) => (
  <ul className="grid gap-2">
    {of.map((c) => (
      <li key={c} className="border-l-4 border-near pl-3">
        {c}
      </li>
    ))}
  </ul>
)

function Abandon({ steps, onSend }: { steps: string[]; onSend: (outcome: OutcomeRequest) => void }) {
  const form = useEntry(outcomeRequest, { outcome: 'abandoned', reason: '', steps })
  return (
    <Form onSubmit={form.handleSubmit(onSend)} className="grid gap-4">
      <TextEntry control={form.control} name="reason" label="Why" rows={3} autoFocus />
      <Button look="next" type="submit">
        Record as abandoned
      </Button>
    </Form>
  )
}
