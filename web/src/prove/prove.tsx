import type { Shift } from '@geolabe/contract'
import {
  type Case,
  type CheckName,
  type Finding,
  type LiftPlan,
  type Point,
  type Remedy,
  type Verdict,
  worstVerdict,
} from '@geolabe/core'
import { useCallback, useEffect, useMemo, useState } from 'react'
import { useNavigate } from 'react-router'
import { useDraft } from '../api/draft'
import type { Lit, Touched } from '../instruments/dial'
import type { Polar } from '../instruments/hook-point'
import { rich } from '../language/rich'
import { t } from '../language/t'
import { Button } from '../look/button'
import { Refused } from '../look/page'
import { Sheets } from '../look/sheets'
import { Station } from '../look/station'
import type { ShiftContext } from '../order/context'
import { takeForLift } from '../transfer/transfer-to-lift'
import type { Ground, Planned } from './case-parts'
import { ClosedAreas } from './closed-areas'
import { CrewPanel } from './crew-panel'
import {
  firstLift,
  isLiftDraft,
  movedTo,
  type ProveDraft,
  poseAt,
  type StepChange,
  seenAs,
  stepOf,
  withHung,
  withStep,
} from './draft'
import { Elsewhere } from './elsewhere'
import { Findings } from './findings'
import { LoadPanel, MachinePanel, PathPanel } from './inputs'
import { LiftDrawing } from './lift-drawing'
import { PosePanel } from './pose-panel'
import { ProofHead, worthOf } from './proof-head'
import { useRecordProof } from './record-proof'
import { ChangeList } from './remedy-list'
import { RoomPanel, SlingPanel } from './room'
import { SupportBars } from './support-bars'
import { TableReading } from './table-reading'
import { withTransferred } from './transferred'
import { UncertaintyPanel } from './uncertainty-panel'
import { useAdvice } from './use-advice'
import { useMap } from './use-map'
import { useProof } from './use-proof'

type Tab = 'load' | 'path' | 'slings' | 'machine' | 'table'

/** On which sheet that is entered which a check asks for. */
const sheetOf: Partial<Record<CheckName, Tab>> = {
  mass: 'load',
  clearance: 'load',
  rating: 'path',
  wind: 'machine',
  table: 'machine',
  'hook-height': 'slings',
  'two-block': 'slings',
  structure: 'slings',
  people: 'path',
  sight: 'path',
}

/** Heights are asked for by more than one check. */
const sheetFor = (f: Finding | undefined): Tab | undefined =>
  f && (f.reason === 'no-heights' ? 'slings' : f.reason === 'no-load-size' ? 'load' : sheetOf[f.check])

/** Where on the drawing a finding is: its outrigger, or its point of the path. */
function placeOf(f: Finding | undefined, outriggers: readonly { id: string }[]): Lit | null {
  const own = outriggers.find((o) => f?.subject === o.id || f?.subject?.startsWith(`${o.id}-`))
  return own ? { outrigger: own.id } : f?.at ? { at: f.at } : null
}

/** What keeps a sheet's part of the plan from being proved. */
const openOn = (findings: readonly Finding[], tab: Tab): Verdict | null =>
  worstVerdict(
    findings.filter((f) => sheetFor(f) === tab && f.verdict !== 'inside' && f.verdict !== 'near').map((f) => f.verdict),
  )

/** Station: one lift, proven before anything leaves the ground. Every change computes everything at once. */
export function ProveCrane({
  shift,
  file,
  place,
  machine,
  setup,
}: ShiftContext & { machine: Parameters<typeof firstLift>[0]; setup: Shift['setups'][number] }) {
  // The plan is the person's work; a new set-up keeps it and proves it anew.
  const [draft, setDraft, clear] = useDraft<ProveDraft>(`${shift.id}.prove`, () => firstLift(machine, place, shift), isLiftDraft)
  // A calculation that was meant for this lift is taken up once.
  useEffect(() => {
    const transferred = takeForLift(shift.id)
    if (transferred) setDraft((d) => withTransferred(d, transferred))
  }, [shift.id, setDraft])
  const [tried, setTried] = useState<Case['setup'] | null>(null)
  const navigate = useNavigate()
  const { record: recordProof, error } = useRecordProof(shift.id, clear)
  const [tab, setTab] = useState<Tab>('load')
  const [opened, setOpened] = useState('')
  const plan = tried ?? setup.plan
  const { lift, wind_mps } = draft
  const { tables } = file
  const ground = useMemo<Ground>(() => ({ machine, tables, place, policy: place.policy }), [machine, tables, place])
  const planned = useMemo<Planned>(() => ({ setup: plan, lift, conditions: { wind_mps } }), [plan, lift, wind_mps])
  const proof = useProof(ground, planned)
  const { heard, current } = proof
  const assessment = heard?.proof.assessment ?? null
  const proved = useMemo<Case | null>(() => heard && { ...heard.on, ...heard.of }, [heard])
  const advised = useAdvice(proved, assessment, machine)
  const zones = useMap(ground, planned)

  const step = stepOf(lift)
  const seen = useMemo(() => seenAs(machine, step), [machine, step])
  const change = useCallback((to: StepChange) => setDraft((d) => ({ ...d, lift: withStep(d.lift, to) })), [setDraft])
  const changeHung = useCallback(
    (to: Partial<LiftPlan['hung']>) => setDraft((d) => ({ ...d, lift: withHung(d.lift, to) })),
    [setDraft],
  )
  const changeCrew = useCallback((crew: LiftPlan['crew']) => setDraft((d) => ({ ...d, lift: { ...d.lift, crew } })), [setDraft])
  const close = (closes: string[]) => setDraft((d) => ({ ...d, lift: { ...d.lift, closes } }))
  const move = (which: 'pickUp' | 'setDown', to: Polar) =>
    setDraft((d) => {
      const s = stepOf(d.lift)
      if (s.do === 'slew') return { ...d, lift: withStep(d.lift, { [which]: movedTo(s[which], to) }) }
      const at = which === 'pickUp' ? 0 : s.waypoints.length - 1
      const now = s.waypoints[at]
      const there = now && poseAt(machine, now, to.radius_m)
      if (!there) return d
      const waypoints = s.waypoints.map((p, i) => (i === at ? { ...there, slew_deg: to.slew_deg } : p))
      return { ...d, lift: withStep(d.lift, { waypoints }) }
    })
  const movePost = useCallback(
    (i: number, to: Point) =>
      setDraft((d) => {
        const crew = d.lift.crew
        return crew ? { ...d, lift: { ...d.lift, crew: { ...crew, posts: crew.posts?.map((p, k) => (k === i ? to : p)) } } } : d
      }),
    [setDraft],
  )
  const moveStand = useCallback(
    (i: number, to: Point) =>
      setDraft((d) => {
        const crew = d.lift.crew
        const stands = crew?.stands?.map((p, k) => (k === i ? { ...p, ...to } : p))
        return crew ? { ...d, lift: { ...d.lift, crew: { ...crew, stands } } } : d
      }),
    [setDraft],
  )
  const take = useCallback(
    (made: Remedy) => {
      if (!made.changedCase) return
      setDraft({ lift: made.changedCase.lift, wind_mps: made.changedCase.conditions.wind_mps })
      setTried(JSON.stringify(made.changedCase.setup) === JSON.stringify(setup.plan) ? null : made.changedCase.setup)
    },
    [setDraft, setup.plan],
  )
  const record = () => recordProof({ setup: setup.id, plan: lift, conditions: { wind_mps } })
  const findings = assessment?.findings ?? []
  const openFinding = useCallback(
    (id: string) => {
      setOpened(id)
      const sheet = sheetFor(assessment?.findings.find((f) => f.id === id))
      if (sheet) setTab(sheet)
    },
    [assessment],
  )
  const touch = (what: Touched) => {
    if ('point' in what) return setTab('path')
    const own = findings.filter((f) => f.subject === what.outrigger)
    const worst = own.sort((a, b) => (b.utilisation ?? 0) - (a.utilisation ?? 0))[0]
    if (worst) openFinding(worst.id)
  }
  const proven = assessment?.verdict === 'inside' || assessment?.verdict === 'near'
  return (
    <Station
      title={t`Prove the lift`}
      head={
        <>
          {tried && (
            <div className="flex flex-wrap items-center justify-between gap-2 rounded-xl border-2 border-near bg-sheet p-2 px-3">
              <p>{rich`${<strong className="text-near">{t`Tried on other outriggers or mats.`}</strong>} Set the machine up so and record that first.`}</p>
              <span className="flex flex-wrap gap-2">
                <Button onClick={() => setTried(null)}>{t`Back to how it stands`}</Button>
                <Button onClick={() => navigate(`/shifts/${shift.id}/set-up`)}>{t`To the set-up`}</Button>
              </span>
            </div>
          )}
          <ProofHead proof={proof} />
          <Refused error={error} />
        </>
      }
      drawing={
        <LiftDrawing
          label={t`Plan of the lift: drag the pick-up and set-down points`}
          machine={machine}
          place={place}
          setup={plan}
          tables={tables}
          wind={wind_mps}
          seen={seen}
          onPose={(i, pose) => step.do === 'pose' && change({ waypoints: step.waypoints.map((p, k) => (k === i ? pose : p)) })}
          assessment={assessment}
          zones={zones}
          lit={placeOf(
            findings.find((f) => f.id === opened),
            machine.outriggers ?? [],
          )}
          onMove={move}
          posts={machine.eye?.on === 'foot' ? lift.crew?.posts : undefined}
          onPost={movePost}
          stands={lift.crew?.stands}
          onStand={moveStand}
          onTouch={touch}
        />
      }
      list={
        assessment && (
          <>
            <ChangeList
              assessment={assessment}
              advice={advised.advice}
              current={advised.current}
              onTake={take}
              onOpen={openFinding}
            />
            {proved && assessment.verdict !== 'inside' && <Elsewhere of={proved} />}
            <Findings assessment={assessment} open={opened} onOpen={openFinding} />
          </>
        )
      }
      sheet={
        <Sheets
          label={t`What the lift is planned with`}
          open={tab}
          onOpen={setTab}
          tabs={[
            {
              id: 'load',
              name: t`Load`,
              verdict: openOn(findings, 'load'),
              body: <LoadPanel place={place} hung={lift.hung} setDraft={setDraft} />,
            },
            {
              id: 'path',
              name: t`Path`,
              verdict: openOn(findings, 'path'),
              body: (
                <>
                  {step.do === 'pose' ? (
                    <PosePanel machine={machine} step={step} change={change} />
                  ) : (
                    <PathPanel step={step} change={change} />
                  )}
                  <CrewPanel eye={machine.eye} crew={lift.crew} onChange={changeCrew} />
                  <ClosedAreas place={place} lift={lift} findings={findings} onChange={close} />
                </>
              ),
            },
            {
              id: 'slings',
              name: t`Slings`,
              verdict: openOn(findings, 'slings'),
              body: (
                <div className="grid gap-4">
                  <SlingPanel hung={lift.hung} onHung={changeHung} />
                  <RoomPanel heights={step.heights} hung={lift.hung} change={change} onHung={changeHung} />
                </div>
              ),
            },
            {
              id: 'machine',
              name: t`Boom, wind`,
              verdict: openOn(findings, 'machine'),
              body: (
                <MachinePanel
                  machine={machine}
                  boom_m={step.do === 'slew' ? step.boom_m : null}
                  wind_mps={wind_mps}
                  configuration={lift.configuration}
                  setDraft={setDraft}
                  tables={tables}
                  counterweight={plan.fitted.counterweight}
                />
              ),
            },
            {
              id: 'table',
              name: t`Reading`,
              body: (
                <div className="grid gap-5">
                  {machine.supportStates && <SupportBars of={proved} />}
                  <TableReading assessment={assessment} />
                  {advised.uncertainty && <UncertaintyPanel uncertainty={advised.uncertainty} />}
                </div>
              ),
            },
          ]}
        />
      }
      why={tried ? t`This is a trial: the machine stands otherwise.` : worthOf(assessment?.verdict)}
      actions={
        <Button
          look={proven ? 'next' : 'plain'}
          disabled={!assessment || !current || tried !== null}
          onClick={() => void record()}
        >
          {proven ? t`Record this proof, on to the lift` : t`Record as it is`}
        </Button>
      }
    />
  )
}
