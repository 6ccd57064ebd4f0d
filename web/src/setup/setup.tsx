import {
  assessSetup,
  type OutriggerCrane,
  orderOf,
  provedBy,
  type SetupAssessment,
  stopsOf,
  supportOf,
  worstVerdict,
} from '@geolabe/core'
import { lazy, Suspense, useMemo, useState } from 'react'
import { useDraft } from '../api/draft'
import { Dial } from '../instruments/dial'
import { aroundFeet } from '../instruments/frame'
import { t, told } from '../language/t'
import type { ShiftContext } from '../order/context'
import { useSay } from '../units/units'
import { dialFeet } from './dial-feet'
import { blockedBy, firstDraft, isSetupDraft, planOf, type SetupDraft, standsOnWheels, stateOf, widestThatFits } from './draft'
import { LevelPanel } from './level-panel'
import { OutriggerSheet } from './outrigger-sheet'
import type { OutriggerState } from './outrigger-state'
import { PropsSheet } from './props-sheet'
import { type Closing, type Owed, SetupStation } from './setup-station'
import { StandSheet } from './stand-sheet'
import { Notes } from './standing'
import { WheelSheet } from './wheel-sheet'

const CirclePanel = lazy(() => import('./circle-panel').then((m) => ({ default: m.CirclePanel })))

/** What the checks say of each outrigger or wheel, once round. */
function pointStates(stands: SetupAssessment | null, points: readonly { id: string }[]): Map<string, OutriggerState> {
  return new Map(
    points.map(({ id }) => {
      const own = stands?.findings.filter((f) => f.subject === id) ?? []
      const ground = own.find((f) => f.check === 'ground') ?? null
      const verdict = worstVerdict(own.map((f) => f.verdict))
      return [
        id,
        {
          verdict,
          ground,
          structure: own.find((f) => f.check === 'outrigger' || f.check === 'wheel') ?? null,
          unloaded: stands?.empty.find((s) => s.id === id) ?? null,
          loaded: stands?.laden?.find((s) => s.id === id) ?? null,
        },
      ]
    }),
  )
}

type Tab = 'stand' | 'outriggers' | 'props' | 'level' | 'loads'

/** Station: the machine on its legs or wheels, where they can stand, on what, and level. */
export function SetupCrane({ shift, file, place, machine }: ShiftContext & { machine: OutriggerCrane }) {
  const say = useSay()
  const [draft, setDraft, clear] = useDraft<SetupDraft>(
    `${shift.id}.set-up`,
    () => firstDraft(machine, place, shift),
    isSetupDraft,
  )
  const [tab, setTab] = useState<Tab | Closing>(machine.supportStates ? 'stand' : 'outriggers')
  const [outrigger, setOutrigger] = useState(machine.outriggers[0]?.id ?? '')
  const change = (to: Partial<SetupDraft>) => setDraft((d) => ({ ...d, ...to }))
  const proved = useMemo(() => {
    const { file: order, world } = orderOf(machine, shift)
    return provedBy(order, world, { now_ms: Date.now(), computed: () => null }).map((x) => x.id)
  }, [machine, shift])
  const plan = useMemo(() => planOf(draft, machine, place, proved), [draft, machine, place, proved])
  const { boom_m, radius_m, load_kg } = draft.circle
  const result = useMemo(() => {
    try {
      const trial = { boom_m, radius_m, load_kg }
      return { stands: assessSetup({ machine, tables: file.tables, setup: plan, place, policy: place.policy }, trial), why: null }
    } catch (e) {
      return { stands: null, why: e instanceof Error ? e.message : String(e) }
    }
  }, [machine, plan, boom_m, radius_m, load_kg, place, file.tables])
  const states = useMemo(
    () => pointStates(result.stands, supportOf(machine, plan.standing).points),
    [result, machine, plan.standing],
  )
  const extent_m = useMemo(() => aroundFeet(supportOf(machine, plan.standing).contacts, 1.76), [machine, plan.standing])
  const level_deg = result.stands?.levelLimit_deg ?? null
  const onWheels = standsOnWheels(machine, draft)
  const blocked = (onWheels ? [] : draft.outriggers).filter((l) =>
    blockedBy(machine, place, draft.position, l.id, l.at.stop, l.mat),
  )
  const { props, for: use } = stateOf(machine, draft) ?? {}
  const toTow = use === 'tow'
  const wrong = blocked[0]?.id
  const unread = !toTow && (draft.pitch_deg === null || draft.roll_deg === null)
  const missing: Owed<Tab> | null = wrong
    ? { why: t`An outrigger stands where something is in the way.`, at: 'outriggers', also: () => setOutrigger(wrong) }
    : unread
      ? { why: t`Read the level along and across.`, at: 'level' }
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
  return (
    <SetupStation<Tab>
      shift={shift}
      machine={machine}
      plan={plan}
      draft={draft}
      onChange={change}
      clear={clear}
      below={stateOf(machine, draft)?.label ?? t`${machine.outriggers.length} outriggers`}
      head={
        <>
          <Notes machine={machine} plan={plan} place={place} stands={result.stands} />
          {result.why && <p className="font-bold text-outside">{told(result.why)}</p>}
        </>
      }
      first="drawing"
      drawing={
        <Dial
          machine={machine}
          label={t`Plan of ${machine.name} on its outriggers`}
          place={place}
          position={draft.position}
          extent_m={extent_m}
          tailSwingRadius_m={machine.upper.tailSwingRadius_m}
          lit={tab === 'outriggers' ? { outrigger } : null}
          onTouch={(what) => {
            if (!('outrigger' in what)) return
            setOutrigger(what.outrigger)
            setTab('outriggers')
          }}
          feet={
            onWheels
              ? undefined
              : {
                  at: Object.fromEntries(draft.outriggers.map((l) => [l.id, l.at.stop])),
                  open: Object.fromEntries(
                    draft.outriggers.map((l) => [
                      l.id,
                      stopsOf(
                        machine.outriggers.find((o) => o.id === l.id) ??
                          (machine.outriggers[0] as OutriggerCrane['outriggers'][number]),
                      )
                        .map((s) => s.id)
                        .filter((e) => !blockedBy(machine, place, draft.position, l.id, e, l.mat)),
                    ]),
                  ),
                  onMove: (id, to) =>
                    change({
                      outriggers: draft.outriggers.map((l) => (l.id === id ? { ...l, at: { stop: to }, ground: null } : l)),
                    }),
                }
          }
          outriggers={dialFeet(machine, plan).map((foot) => {
            const s = states.get(foot.id)
            const N = (onWheels ? (s?.loaded ?? s?.unloaded)?.max_N : s?.structure?.measured) ?? null
            return { ...foot, verdict: s?.verdict ?? null, note: N === null ? '' : say('force', N) }
          })}
        />
      }
      open={tab}
      onOpen={setTab}
      tabs={[
        {
          id: 'stand',
          name: t`Stand`,
          body: <StandSheet machine={machine} place={place} draft={draft} onChange={change} onMove={moveTo} />,
        },
        {
          id: 'outriggers',
          name: onWheels ? t`Wheels` : t`Outriggers`,
          verdict: worstVerdict([...states.values()].map((s) => s.verdict)),
          body: onWheels ? (
            <WheelSheet machine={machine} place={place} draft={draft} stands={result.stands} onChange={change} />
          ) : (
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
        ...(props
          ? [
              {
                id: 'props' as const,
                name: t`Props`,
                body: <PropsSheet of={props} place={place} draft={draft} stands={result.stands} onChange={change} />,
              },
            ]
          : []),
        ...(toTow
          ? []
          : [
              {
                id: 'level' as const,
                name: t`Level`,
                verdict: unread ? ('not-proven' as const) : null,
                body: <LevelPanel machine={machine} draft={draft} limit_deg={level_deg} onChange={change} />,
              },
            ]),
      ]}
      after={[
        ...(toTow
          ? []
          : [
              {
                id: 'loads' as const,
                name: t`Loads`,
                body: (
                  <Suspense>
                    <CirclePanel
                      machine={machine}
                      plan={plan}
                      draft={draft}
                      states={states}
                      onChange={(circle) => change({ circle })}
                    />
                  </Suspense>
                ),
              },
            ]),
      ]}
      missing={missing}
    />
  )
}
