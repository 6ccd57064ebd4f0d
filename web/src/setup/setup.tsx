import type { Shift } from '@geolabe/contract'
import {
  assessSetup,
  type Crane,
  extension,
  liftsOnOutriggers,
  normalDegrees,
  type SetupAssessment,
  tailGap,
  type Verdict,
  worseVerdict,
} from '@geolabe/core'
import { useMemo, useState } from 'react'
import { useNavigate } from 'react-router'
import { newId } from '../api/client'
import { useDraft } from '../api/draft'
import { outbox } from '../api/outbox'
import { putShift } from '../api/queries'
import { Dial } from '../instruments/dial'
import { Button } from '../look/button'
import { Choice } from '../look/choice'
import { NumberField } from '../look/field'
import { ActionBar, Refused, Sheet, Title } from '../look/page'
import { type ShiftContext, useShiftContext } from '../shift/frame'
import { nextStation } from '../shift/route-line'
import { Sequence } from '../shift/sequence'
import { Steps } from '../shift/steps'
import { useSay } from '../units/units'
import { CirclePanel } from './circle-panel'
import { dialOutriggers } from './dial-outriggers'
import { blockedBy, firstDraft, isSetupDraft, planOf, type SetupDraft, widestThatFits } from './draft'
import { LevelPanel } from './level-panel'
import { OutriggerPanel } from './outrigger-panel'
import type { OutriggerState } from './outrigger-state'
import { Standing } from './standing'

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
      const verdict = own.reduce<Verdict | null>((v, f) => (v === null ? f.verdict : worseVerdict(v, f.verdict)), null)
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

function SetupCrane({ shift, file, place, machine }: ShiftContext & { machine: Crane }) {
  const say = useSay()
  const navigate = useNavigate()
  const [draft, setDraft, clear] = useDraft<SetupDraft>(`${shift.id}.set-up`, firstDraft(machine, place, shift), isSetupDraft)
  const [error, setError] = useState<unknown>(null)
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
  const why =
    blocked.length > 0
      ? 'A leg stands where something is in the way.'
      : draft.pitch_deg === null || draft.roll_deg === null
        ? 'Read the level along and across.'
        : open.length > 0
          ? `${open.length} ${open.length === 1 ? 'step' : 'steps'} to confirm.`
          : ''

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
  const tail = tailGap(place, draft.position, machine.upper.tailSwingRadius_m)
  const chosenStand = place.positions.find(
    (s) => s.x_m === draft.position.x_m && s.y_m === draft.position.y_m && s.heading_deg === draft.position.heading_deg,
  )
  return (
    <>
      <Title
        below={
          shift.setups.length > 0
            ? 'Recording a new set-up asks for every lift to be proved again.'
            : `${machine.outriggers.length} legs, each on its own ground`
        }
      >{`Set up ${machine.name}`}</Title>
      <div className="grid items-start gap-5 lg:grid-cols-[minmax(0,1fr)_minmax(0,1.05fr)]">
        <div className="grid gap-4 lg:sticky lg:top-4">
          <Dial
            machine={machine}
            label={`Plan of ${machine.name} on its legs`}
            place={place}
            position={draft.position}
            extent_m={7.2}
            tailSwingRadius_m={machine.upper.tailSwingRadius_m}
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
          {result.stands?.lightens && (
            <p className="text-lg">
              <strong className="inline-block first-letter:uppercase">
                {machine.outriggers.find((l) => l.id === result.stands?.lightens?.id)?.label}
              </strong>{' '}
              lightens first: down to <strong className="figure">{say('force', result.stands.lightens.min_N)}</strong> with the
              boom at slew <strong className="figure">{say('angle', normalDegrees(result.stands.lightens.at_deg))}</strong>.
            </p>
          )}
          {tail && (
            <div className="overflow-hidden rounded-xl border-2 border-outside bg-sheet">
              <div className="h-2.5 hatch-outside" />
              <p className="p-3">
                <strong className="text-outside">
                  {tail.gap_m < 0 ? 'The tail would strike.' : 'Crush zone behind the tail.'}
                </strong>{' '}
                {tail.feature.label}:{' '}
                {tail.gap_m < 0
                  ? `${say('length', -tail.gap_m)} too near for a full turn. Stand further off, or never turn the tail that way.`
                  : `only ${say('length', tail.gap_m)} free as the tail passes. Close it off; nobody goes in there.`}
              </p>
            </div>
          )}
          {result.stands && <Standing findings={result.stands.findings} />}
          {result.why && <p className="font-bold text-outside">{result.why}</p>}
        </div>
        <div className="grid gap-4">
          <Sheet title="Where it stands">
            <div className="grid gap-3">
              <Choice
                label="Marked stand"
                value={chosenStand?.id ?? null}
                options={place.positions.map((s) => ({ value: s.id, label: s.label }))}
                onChange={(id) => {
                  const s = place.positions.find((x) => x.id === id)
                  if (s) moveTo({ x_m: s.x_m, y_m: s.y_m, heading_deg: s.heading_deg })
                }}
              />
              <div className="grid grid-cols-3 gap-2">
                <NumberField
                  label="Along"
                  quantity="length"
                  value={draft.position.x_m}
                  onChange={(v) => v !== null && moveTo({ ...draft.position, x_m: v })}
                />
                <NumberField
                  label="Across"
                  quantity="length"
                  value={draft.position.y_m}
                  onChange={(v) => v !== null && moveTo({ ...draft.position, y_m: v })}
                />
                <NumberField
                  label="Heading"
                  quantity="angle"
                  value={draft.position.heading_deg}
                  onChange={(v) => v !== null && moveTo({ ...draft.position, heading_deg: v })}
                />
              </div>
              <Choice
                label="Counterweight fitted"
                value={draft.counterweight}
                options={machine.upper.counterweights.map((c) => ({ value: c.id, label: c.label }))}
                onChange={(counterweight) => change({ counterweight })}
              />
              <Choice
                label="Parts of line"
                value={String(draft.partsOfLine)}
                options={machine.hoist.reevings.map((r) => ({
                  value: String(r.parts),
                  label: String(r.parts),
                  note: `${r.block.name}, ${say('mass', r.block.mass_kg)}`,
                }))}
                onChange={(n) => change({ partsOfLine: Number(n) })}
              />
            </div>
          </Sheet>
          {machine.outriggers.map((outrigger) => {
            const l = draft.outriggers.find((x) => x.id === outrigger.id)
            return l ? (
              <OutriggerPanel
                key={outrigger.id}
                outrigger={outrigger}
                draft={l}
                state={states.get(outrigger.id)}
                machine={machine}
                place={place}
                position={draft.position}
                onChange={(to) =>
                  change({ outriggers: draft.outriggers.map((x) => (x.id === outrigger.id ? { ...x, ...to } : x)) })
                }
              />
            ) : null
          })}
          <LevelPanel machine={machine} draft={draft} limit_deg={level_deg} onChange={change} />
          <CirclePanel machine={machine} draft={draft} states={states} onChange={(circle) => change({ circle })} />
          <Sheet title="In this order">
            <Steps steps={machine.procedures.setup} confirmed={draft.steps} onChange={(steps) => change({ steps })} />
          </Sheet>
          <Refused error={error} />
        </div>
      </div>
      <ActionBar why={why}>
        <Button look="next" disabled={why !== ''} onClick={() => void record()}>
          Record this set-up
        </Button>
      </ActionBar>
    </>
  )
}
