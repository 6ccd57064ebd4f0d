import type { Shift } from '@geolabe/contract'
import { assessSetup, type Crane, extension, liftsOnOutriggers, type SetupAssessment, worstVerdict } from '@geolabe/core'
import { lazy, Suspense, useMemo, useState } from 'react'
import { useNavigate } from 'react-router'
import { newId } from '../api/client'
import { useDraft } from '../api/draft'
import { outbox } from '../api/outbox'
import { putShift } from '../api/queries'
import { Dial } from '../instruments/dial'
import { Button } from '../look/button'
import { Refused } from '../look/page'
import { Sheets } from '../look/sheets'
import { Station } from '../look/station'
import { type ShiftContext, useShiftContext } from '../shift/frame'
import { nextStation } from '../shift/route-line'
import { Sequence } from '../shift/sequence'
import { Steps } from '../shift/steps'
import { useSay } from '../units/units'
import { dialOutriggers } from './dial-outriggers'
import { blockedBy, firstDraft, isSetupDraft, planOf, type SetupDraft, widestThatFits } from './draft'
import { LevelPanel } from './level-panel'
import { OutriggerSheet } from './outrigger-sheet'
import type { OutriggerState } from './outrigger-state'
import { StandSheet } from './stand-sheet'
import { Notes } from './standing'

const CirclePanel = lazy(() => import('./circle-panel').then((m) => ({ default: m.CirclePanel })))

/** Station: the machine on its legs, where they can stand, on what, and level. */
export function Setup() {
  const context = useShiftContext()
  if (!liftsOnOutriggers(context.file.definition)) return <Sequence procedure="setup" />
  return <SetupCrane {...context} machine={context.file.definition} />
}

/** What the checks say of each leg, once round. */
function legStates(stands: SetupAssessment | null, machine: Crane): Map<string, OutriggerState> {
  return new Map(
    machine.outriggers.map(({ id }) => {
      const own = stands?.findings.filter((f) => f.subject === id) ?? []
      const ground = own.find((f) => f.check === 'ground') ?? null
      const verdict = worstVerdict(own.map((f) => f.verdict))
      return [
        id,
        {
          verdict,
          ground,
          structure: own.find((f) => f.check === 'outrigger') ?? null,
          unloaded: stands?.empty.find((s) => s.id === id) ?? null,
          loaded: stands?.laden?.find((s) => s.id === id) ?? null,
        },
      ]
    }),
  )
}

type Tab = 'stand' | 'outriggers' | 'level' | 'order' | 'loads'

function SetupCrane({ shift, file, place, machine }: ShiftContext & { machine: Crane }) {
  const say = useSay()
  const navigate = useNavigate()
  const [draft, setDraft, clear] = useDraft<SetupDraft>(`${shift.id}.set-up`, firstDraft(machine, place, shift), isSetupDraft)
  const [error, setError] = useState<unknown>(null)
  const [tab, setTab] = useState<Tab>('outriggers')
  const [outrigger, setOutrigger] = useState(machine.outriggers[0]?.id ?? '')
  const change = (to: Partial<SetupDraft>) => setDraft((d) => ({ ...d, ...to }))
  const plan = useMemo(() => planOf(draft, machine, place), [draft, machine, place])
  const { boom_m, radius_m, load_kg } = draft.circle
  const result = useMemo(() => {
    try {
      const trial = { boom_m, radius_m, load_kg }
      return { stands: assessSetup({ machine, tables: file.tables, setup: plan, place, policy: place.policy }, trial), why: null }
    } catch (e) {
      return { stands: null, why: e instanceof Error ? e.message : String(e) }
    }
  }, [machine, plan, boom_m, radius_m, load_kg, place, file.tables])
  const states = useMemo(() => legStates(result.stands, machine), [result, machine])
  const level_deg = result.stands?.levelLimit_deg ?? null
  const blocked = draft.outriggers.filter((l) => blockedBy(machine, place, draft.position, l.id, l.at.stop, l.mat))
  const open = machine.procedures.setup.filter((s) => !draft.steps.includes(s.id))
  const wrong = blocked[0]?.id
  const unread = draft.pitch_deg === null || draft.roll_deg === null
  /** What keeps it from being recorded, and where that is put right. */
  const first: { why: string; at: Tab } | null = wrong
    ? { why: 'An outrigger stands where something is in the way.', at: 'outriggers' }
    : unread
      ? { why: 'Read the level along and across.', at: 'level' }
      : open.length > 0
        ? { why: `${open.length} ${open.length === 1 ? 'step' : 'steps'} to confirm.`, at: 'order' }
        : null

  const moveTo = (position: SetupDraft['position']) =>
    change({
      position,
      outriggers: draft.outriggers.map((l) => ({
        ...l,
        ground: null,
        at: { stop: widestThatFits(machine, place, position, l.id, l.mat) },
      })),
    })
  const record = async () => {
    setError(null)
    try {
      const s = await outbox.send<Shift>('record-setup', { shift: shift.id }, { id: newId(), plan, steps: draft.steps })
      putShift(shift.id, s)
      clear()
      // A machine set up anew proves its lift anew.
      navigate(`/shifts/${shift.id}/${nextStation(s, machine) === 'walk-round' ? 'walk-round' : 'prove'}`)
    } catch (e) {
      setError(e)
    }
  }
  return (
    <Station
      title={`Set up ${machine.name}`}
      below={
        shift.setups.length > 0
          ? 'Recording a new set-up asks for every lift to be proved again.'
          : `${machine.outriggers.length} outriggers, each on its own ground`
      }
      head={
        <>
          <Notes machine={machine} place={place} position={draft.position} stands={result.stands} />
          {result.why && <p className="font-bold text-outside">{result.why}</p>}
          <Refused error={error} />
        </>
      }
      first="drawing"
      drawing={
        <Dial
          machine={machine}
          label={`Plan of ${machine.name} on its outriggers`}
          place={place}
          position={draft.position}
          extent_m={7.2}
          tailSwingRadius_m={machine.upper.tailSwingRadius_m}
          lit={tab === 'outriggers' ? { outrigger } : null}
          onTouch={(what) => {
            if (!('outrigger' in what)) return
            setOutrigger(what.outrigger)
            setTab('outriggers')
          }}
          feet={{
            at: Object.fromEntries(draft.outriggers.map((l) => [l.id, l.at.stop])),
            open: Object.fromEntries(
              draft.outriggers.map((l) => [
                l.id,
                extension.options.filter((e) => !blockedBy(machine, place, draft.position, l.id, e, l.mat)),
              ]),
            ),
            onMove: (id, to) =>
              change({ outriggers: draft.outriggers.map((l) => (l.id === id ? { ...l, at: { stop: to }, ground: null } : l)) }),
          }}
          outriggers={dialOutriggers(machine, plan, (id) => {
            const s = states.get(id)
            const N = s?.structure?.measured ?? null
            return { verdict: s?.verdict ?? null, note: N === null ? '' : say('force', N) }
          })}
        />
      }
      sheet={
        <Sheets
          label="The set-up, in the order it is worked"
          open={tab}
          onOpen={setTab}
          tabs={[
            {
              id: 'stand',
              name: 'Stand',
              body: <StandSheet machine={machine} place={place} draft={draft} onChange={change} onMove={moveTo} />,
            },
            {
              id: 'outriggers',
              name: 'Outriggers',
              verdict: worstVerdict([...states.values()].map((s) => s.verdict)),
              body: (
                <OutriggerSheet
                  machine={machine}
                  place={place}
                  draft={draft}
                  states={states}
                  chosen={outrigger}
                  onChoose={setOutrigger}
                  onChange={change}
                  onLevel={() => setTab('level')}
                />
              ),
            },
            {
              id: 'level',
              name: 'Level',
              verdict: unread ? 'not-proven' : null,
              body: <LevelPanel machine={machine} draft={draft} limit_deg={level_deg} onChange={change} />,
            },
            {
              id: 'order',
              name: 'In order',
              body: <Steps steps={machine.procedures.setup} confirmed={draft.steps} onChange={(steps) => change({ steps })} />,
            },
            {
              id: 'loads',
              name: 'Loads',
              body: (
                <Suspense>
                  <CirclePanel machine={machine} draft={draft} states={states} onChange={(circle) => change({ circle })} />
                </Suspense>
              ),
            },
          ]}
        />
      }
      why={
        first && (
          <button
            type="button"
            className="min-h-12 text-left font-semibold underline underline-offset-4"
            onClick={() => {
              setTab(first.at)
              if (wrong) setOutrigger(wrong)
            }}
          >
            {first.why}
          </button>
        )
      }
      actions={
        <Button look="next" disabled={first !== null} onClick={() => void record()}>
          Record this set-up
        </Button>
      }
    />
  )
}
