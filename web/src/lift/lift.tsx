import type { LiftRecord, OutcomeRequest, Shift } from '@geolabe/contract'
import { findingWords, liftsOnOutriggers, pathOf, verdictWords } from '@geolabe/core'
import { useState } from 'react'
import { Link, useNavigate } from 'react-router'
import { useDraft } from '../api/draft'
import { outbox } from '../api/outbox'
import { putShift } from '../api/queries'
import { Dial } from '../instruments/dial'
import { Button } from '../look/button'
import { Dialog } from '../look/dialog'
import { TextField } from '../look/field'
import { ActionBar, Refused, Sheet, Title } from '../look/page'
import { VerdictMark, verdictTone } from '../look/verdict'
import { clock } from '../look/when'
import { plainPoint, stepOf } from '../prove/draft'
import { dialOutriggers } from '../setup/dial-outriggers'
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
  const far = Math.max(plainPoint(step.pickUp).radius_m, plainPoint(step.setDown).radius_m)
  return (
    <>
      <Title
        below={a.configuration ? `Machine’s computer on: ${a.configuration.label}` : undefined}
      >{`Lift: ${lift.plan.hung.load.name || 'the load'}`}</Title>
      <div className={`mb-4 overflow-hidden rounded-xl border-2 bg-sheet ${verdictTone[a.verdict].border}`}>
        <div className={`h-3 ${verdictTone[a.verdict].hatch}`} />
        <div className="flex flex-wrap items-center gap-4 p-4">
          <VerdictMark verdict={a.verdict} size={44} />
          <div className="grow">
            <p className={`text-[1.7rem] leading-tight font-[800] ${verdictTone[a.verdict].text}`}>
              {verdictWords[a.verdict].long}
            </p>
            {a.governing && <p>{findingWords(a.governing, say).what}</p>}
          </div>
          <p className="figure text-right text-2xl font-bold">
            {a.hookLoad_kg === null ? '–' : say('mass', a.hookLoad_kg)}
            <span className="block font-sans text-[0.9rem] font-normal text-quiet">
              of {a.rated_kg === null ? 'no rating' : say('mass', a.rated_kg)}
            </span>
          </p>
        </div>
      </div>
      <div className="grid items-start gap-5 lg:grid-cols-2">
        <div className="grid gap-4">
          <Sheet title="Before and at the trial lift">
            <Steps steps={machine.procedures.lift} confirmed={steps} onChange={setSteps} />
          </Sheet>
          <Sheet title="Caution">
            <ul className="grid gap-2">
              {machine.cautions.map((c) => (
                <li key={c} className="border-l-4 border-near pl-3">
                  {c}
                </li>
              ))}
            </ul>
          </Sheet>
        </div>
        <div className="grid gap-4">
          {liftsOnOutriggers(machine) && setup && (
            <Dial
              machine={machine}
              label="The lift as it was proved"
              place={place}
              position={setup.plan.position}
              extent_m={Math.min(32, Math.max(9, Math.ceil(far / 2) * 2 + 3))}
              outriggers={dialOutriggers(machine, setup.plan, (id) => {
                const use = a.outriggers.find((l) => l.id === id)
                return {
                  verdict: a.findings.find((f) => f.check === 'ground' && f.subject === id)?.verdict ?? null,
                  note: use ? say('force', use.upper_N) : '',
                }
              })}
              boom={plainPoint(step.pickUp)}
              pickUp={plainPoint(step.pickUp)}
              setDown={plainPoint(step.setDown)}
              arc={pathOf(step).arc}
            />
          )}
          <p className="text-lg">
            Pick up at <strong className="figure">{say('length', plainPoint(step.pickUp).radius_m)}</strong>, slew{' '}
            {step.slewDirection} to <strong className="figure">{say('angle', step.setDown.slew_deg)}</strong>, set down at{' '}
            <strong className="figure">{say('length', plainPoint(step.setDown).radius_m)}</strong>. Wind up to{' '}
            <strong className="figure">{a.windLimit_mps === null ? '–' : say('speed', a.windLimit_mps)}</strong>.
          </p>
          <Refused error={error} />
        </div>
      </div>
      <ActionBar why={why}>
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
      </ActionBar>
      <Dialog open={abandon} onClose={() => setAbandon(false)} title="Abandon this lift">
        <Abandon onSend={(reason) => void send({ outcome: 'abandoned', reason, steps })} />
      </Dialog>
    </>
  )
}

function Abandon({ onSend }: { onSend: (reason: string) => void }) {
  const [reason, setReason] = useState('')
  return (
    <div className="grid gap-4">
      <TextField label="Why" value={reason} onChange={setReason} rows={3} autoFocus />
      <Button look="next" disabled={reason.trim() === ''} onClick={() => onSend(reason)}>
        Record as abandoned
      </Button>
    </div>
  )
}
