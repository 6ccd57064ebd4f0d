import type { ProveRequest, Shift } from '@geolabe/contract'
import {
  type Assessment,
  assess,
  type Case,
  liftsOnOutriggers,
  nominal,
  pathOf,
  Refusal,
  type Remedy,
  rowFigures,
  uncertaintyOf,
  type Verdict,
} from '@geolabe/core'
import { useEffect, useMemo, useState } from 'react'
import { Link, useNavigate } from 'react-router'
import { newId } from '../api/client'
import { useDraft } from '../api/draft'
import { outbox } from '../api/outbox'
import { putShift } from '../api/queries'
import { Dial } from '../instruments/dial'
import { SideView } from '../instruments/side-view'
import { ZoneLegend } from '../instruments/zones'
import { Button } from '../look/button'
import { ActionBar, Refused, Title } from '../look/page'
import { dialOutriggers } from '../setup/dial-outriggers'
import { type ShiftContext, useShiftContext } from '../shift/frame'
import { takeForLift } from '../transfer/transfer-to-lift'
import { useSay } from '../units/units'
import { firstLift, isLiftDraft, movedTo, type ProveDraft, plainPoint, stepOf, withHung, withStep } from './draft'
import { FindingList } from './finding-list'
import { LoadPanel, MachinePanel, PathPanel } from './inputs'
import { ChangeList } from './remedy-list'
import { RoomPanel, SlingPanel } from './room'
import { withTransferred } from './transferred'
import { UncertaintyPanel } from './uncertainty-panel'
import { useAdvice } from './use-advice'
import { useMap } from './use-map'
import { VerdictBand } from './verdict-band'

/** Station: one lift, proven before anything leaves the ground. Every change computes everything at once. */
export function Prove() {
  const context = useShiftContext()
  const machine = context.file.definition
  const setup = context.shift.setups[context.shift.setups.length - 1]
  if (!liftsOnOutriggers(machine)) return <p>This machine has no boom and legs; a lift is not proved here.</p>
  if (!setup) {
    return (
      <>
        <Title>Prove the lift</Title>
        <p className="text-lg">The machine is not set up yet, and a rating belongs to exactly one set-up.</p>
        <ActionBar>
          <Link
            className="flex min-h-16 items-center rounded-lg border-2 border-ink bg-accent px-7 text-lg font-bold text-on-accent"
            to={`/shifts/${context.shift.id}/set-up`}
          >
            Set up first
          </Link>
        </ActionBar>
      </>
    )
  }
  return <ProveCrane key={setup.id} {...context} machine={machine} setup={setup} />
}

function ProveCrane({
  shift,
  file,
  place,
  machine,
  setup,
}: ShiftContext & { machine: Parameters<typeof firstLift>[0]; setup: Shift['setups'][number] }) {
  const say = useSay()
  const navigate = useNavigate()
  // The plan is the person's work; a new set-up keeps it and proves it anew.
  const [draft, setDraft, clear] = useDraft<ProveDraft>(`${shift.id}.prove`, firstLift(machine, place, shift), isLiftDraft)
  // A calculation that was meant for this lift is taken up once.
  useEffect(() => {
    const transferred = takeForLift(shift.id)
    if (transferred) setDraft((d) => withTransferred(d, transferred))
  }, [shift.id, setDraft])
  const [tried, setTried] = useState<Case['setup'] | null>(null)
  const [error, setError] = useState<unknown>(null)
  const plan = tried ?? setup.plan
  const lift = draft.lift
  const c = useMemo<Case>(
    () => ({
      machine,
      tables: file.tables,
      setup: plan,
      lift,
      conditions: { wind_mps: draft.wind_mps },
      place,
      policy: place.policy,
    }),
    [machine, file.tables, plan, lift, draft.wind_mps, place],
  )
  const { assessment, refused } = useMemo<{ assessment: Assessment | null; refused: string | null }>(() => {
    try {
      return { assessment: assess(c), refused: null }
    } catch (e) {
      if (e instanceof Refusal) return { assessment: null, refused: e.message }
      throw e
    }
  }, [c])
  const { advice, current } = useAdvice(c, assessment, machine, place)
  const map = useMap(c, rowFigures(c.tables, 'radius_m').at(-1) ?? 0)
  const uncertainty = useMemo(() => (assessment ? uncertaintyOf(c) : null), [c, assessment])

  const step = stepOf(lift)
  const change = (to: Partial<typeof step>) => setDraft((d) => ({ ...d, lift: withStep(d.lift, to) }))
  const changeHung = (to: Partial<ProveDraft['lift']['hung']>) => setDraft((d) => ({ ...d, lift: withHung(d.lift, to) }))
  const take = (made: Remedy) => {
    if (!made.changedCase) return
    setDraft({ lift: made.changedCase.lift, wind_mps: made.changedCase.conditions.wind_mps })
    setTried(JSON.stringify(made.changedCase.setup) === JSON.stringify(setup.plan) ? null : made.changedCase.setup)
  }
  const record = async () => {
    setError(null)
    const body: ProveRequest = { id: newId(), setup: setup.id, plan: lift, conditions: { wind_mps: draft.wind_mps } }
    try {
      putShift(shift.id, await outbox.send<Shift>('prove-lift', { shift: shift.id }, body))
      clear()
      navigate(`/shifts/${shift.id}/lift`)
    } catch (e) {
      setError(e)
    }
  }
  const legVerdict = (id: string): Verdict | null => {
    const found = assessment?.findings.filter((f) => f.subject === id) ?? []
    return found.some((f) => f.verdict === 'outside')
      ? 'outside'
      : found.some((f) => f.verdict === 'not-proven')
        ? 'not-proven'
        : found.some((f) => f.verdict === 'near')
          ? 'near'
          : found.length > 0
            ? 'inside'
            : null
  }
  const [pickUp, set] = [plainPoint(step.pickUp), plainPoint(step.setDown)]
  const far = Math.max(pickUp.radius_m, set.radius_m)
  const bend = typeof step.radiusBasis === 'object' && step.radiusBasis ? step.radiusBasis.deflection_m : 0
  const proven = assessment?.verdict === 'inside' || assessment?.verdict === 'near'
  return (
    <>
      <Title>Prove the lift</Title>
      {tried && (
        <div className="mb-3 flex flex-wrap items-center justify-between gap-3 rounded-xl border-2 border-near bg-sheet p-3">
          <p>
            <strong className="text-near">Tried on other legs or mats.</strong> The machine does not stand like this yet. Set it
            up so and record that first.
          </p>
          <span className="flex flex-wrap gap-2">
            <Button onClick={() => setTried(null)}>Back to how it stands</Button>
            <Button onClick={() => navigate(`/shifts/${shift.id}/set-up`)}>To the set-up</Button>
          </span>
        </div>
      )}
      {assessment ? <VerdictBand assessment={assessment} /> : <Refused error={new Error(refused ?? '')} />}
      <div className="mt-4 grid items-start gap-5 lg:grid-cols-[minmax(0,1fr)_minmax(0,1fr)]">
        <div className="grid gap-4">
          <Dial
            machine={machine}
            label="Plan of the lift: drag the pick-up and set-down points"
            place={place}
            position={plan.position}
            extent_m={Math.min(32, Math.max(9, Math.ceil(far / 2) * 2 + 3))}
            outriggers={dialOutriggers(machine, plan, (id) => {
              const use = assessment?.outriggers.find((l) => l.id === id)
              return { verdict: legVerdict(id), note: use ? say('force', use.upper_N) : '' }
            })}
            boom={set}
            pickUp={pickUp}
            setDown={set}
            arc={pathOf(step).arc}
            zones={map?.zones ?? undefined}
            onMove={(which, p) => change({ [which]: movedTo(step[which], p) })}
          />
          <p className="text-[0.92rem] text-quiet">
            Inside the drawn line this load may go with this set-up; the shaded ground beyond is outside. What the line ends by:
          </p>
          <ZoneLegend />
          <SideView
            machine={machine}
            boom_m={step.boom_m}
            radius_m={nominal(step.setDown.radius_m)}
            deflection_m={bend}
            label="From the side at set-down"
          />
        </div>
        <div className="grid gap-4">
          {assessment && <ChangeList assessment={assessment} advice={advice} current={current} onTake={take} />}
          {uncertainty && <UncertaintyPanel uncertainty={uncertainty} />}
          <LoadPanel place={place} draft={draft} setDraft={setDraft} />
          <PathPanel step={step} change={change} />
          <RoomPanel step={step} hung={lift.hung} change={change} onHung={changeHung} />
          <SlingPanel hung={lift.hung} onHung={changeHung} />
          <MachinePanel
            machine={machine}
            draft={draft}
            setDraft={setDraft}
            tables={file.tables}
            counterweight={plan.fitted.counterweight}
          />
        </div>
      </div>
      {assessment && <FindingList assessment={assessment} />}
      <div className="mt-4">
        <Refused error={error} />
      </div>
      <ActionBar
        why={
          tried
            ? 'This is a trial: the machine stands otherwise.'
            : proven
              ? 'Recorded with everything it rests on.'
              : assessment?.verdict === 'outside'
                ? 'Outside the limits: it can be recorded, never lifted.'
                : 'Not proven: it can be recorded, never lifted.'
        }
      >
        <Button look={proven ? 'next' : 'plain'} disabled={!assessment || tried !== null} onClick={() => void record()}>
          {proven ? 'Record this proof, on to the lift' : 'Record as it is'}
        </Button>
      </ActionBar>
    </>
  )
}
