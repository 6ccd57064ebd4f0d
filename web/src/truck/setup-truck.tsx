import {
  type Assessment,
  assess,
  fittedOf,
  type LiftPlan,
  type ReachPart,
  Refusal,
  type TruckMachine,
  worstVerdict,
} from '@geolabe/core'
import { useMemo, useState } from 'react'
import { useDraft } from '../api/draft'
import { t } from '../language/t'
import { Choice } from '../look/choice'
import { NumberField, SelectField, TolField } from '../look/field'
import type { ShiftContext } from '../order/context'
import { Findings } from '../prove/findings'
import { GroundField } from '../setup/ground-field'
import { type Closing, SetupStation } from '../setup/setup-station'
import { firstTruckSetup, isTruckSetup, type TruckSetupDraft, truckPlanOf } from './draft'
import { ReachView } from './reach-view'
import { TruckView } from './truck-view'

/** Nothing on the forks, mast down: what the set-up by itself is judged with. */
const empty: LiftPlan = {
  format: 'geolabe.lift/2',
  hung: {
    load: { name: '', mass_kg: null, massSource: null, windArea_m2: null, dragCoefficient: 1 },
    rigging: [],
  },
  steps: [{ do: 'mast', laden: false, waypoints: [{ height_m: 0, tilt_deg: 0, sideShift_m: 0 }] }],
}
/** The same of a boom: drawn in and level. */
const emptyBoom = ({ lengths }: ReachPart): LiftPlan => ({
  ...empty,
  steps: [{ do: 'reach', laden: false, waypoints: [{ boom_m: lengths.least_m, angle_deg: 0 }] }],
})
/** What of that says something about the set-up. */
const ofSetup = new Set(['selection', 'axle', 'floor', 'ground', 'level', 'evidence'])

type Tab = 'fitted' | 'floor'

/** Station: a truck's tool, tyres, battery and floor, once a shift and again when one of them changes. */
export function SetupTruck({ shift, file, place, machine }: ShiftContext & { machine: TruckMachine }) {
  const [draft, setDraft, clear] = useDraft<TruckSetupDraft>(
    `${shift.id}.set-up`,
    () => firstTruckSetup(machine, shift),
    isTruckSetup,
  )
  const { truck } = machine
  const slabbed = truck.slab !== undefined
  const battery = file.tables.find((t) => t.battery)?.battery
  const tools = slabbed ? [] : (truck.attachments ?? [])
  const displays = machine.display?.shows.includes('attachment') ? machine.display : null
  const fits = slabbed || battery !== undefined || tools.length > 0
  const [tab, setTab] = useState<Tab | Closing>(fits ? 'fitted' : 'floor')
  const [opened, setOpened] = useState('')
  const change = (to: Partial<TruckSetupDraft>) => setDraft((d) => ({ ...d, ...to }))
  const plan = useMemo(() => truckPlanOf(draft, machine, place), [draft, machine, place])
  const stands = useMemo<Pick<Assessment, 'findings' | 'notChecked'>>(() => {
    try {
      const { findings } = assess({
        machine,
        tables: file.tables,
        setup: plan,
        lift: machine.truck.reach ? emptyBoom(machine.truck.reach) : empty,
        conditions: { wind_mps: 0, roofShut: true },
        place,
        policy: place.policy,
      })
      return { findings: findings.filter((f) => ofSetup.has(f.check)), notChecked: [] }
    } catch (e) {
      if (e instanceof Refusal) return { findings: [], notChecked: [] }
      throw e
    }
  }, [machine, file.tables, plan, place])
  const misread = displays ? worstVerdict(stands.findings.filter((f) => f.check === 'selection').map((f) => f.verdict)) : null
  const columns = file.tables.flatMap((t) => t.configurations.flatMap((c) => c.columns.map(Number)))
  const rows = file.tables.flatMap((t) => t.configurations.flatMap((c) => c.rows.map((r) => Number(r.at))))
  const unread = draft.pitch_deg === null || draft.roll_deg === null
  const each = (figures: readonly number[]) => [...new Set(figures)].sort((a, b) => a - b)
  return (
    <SetupStation<Tab>
      shift={shift}
      machine={machine}
      plan={plan}
      draft={draft}
      onChange={change}
      clear={clear}
      below={t`Once a shift, and again when tool, battery or tyres change`}
      drawing={
        truck.reach ? (
          <ReachView machine={machine} lift={null} setup={plan} tables={file.tables} assessment={null} />
        ) : (
          <TruckView machine={machine} lift={null} fitted={fittedOf(truck, { setup: plan })} assessment={stands} />
        )
      }
      open={tab}
      onOpen={setTab}
      tabs={[
        ...(fits
          ? [
              {
                id: 'fitted' as const,
                name: t`Fitted`,
                verdict: misread === 'inside' ? null : misread,
                body: (
                  <div className="grid gap-3">
                    {tools.length > 0 && (
                      <Choice
                        label={t`Tool`}
                        value={draft.attachment}
                        options={[
                          ...(truck.boom ? [] : [{ value: 'forks', label: t`Forks` }]),
                          ...tools.map((a) => ({ value: a.id, label: a.label })),
                        ]}
                        onChange={(attachment) => change({ attachment })}
                      />
                    )}
                    {truck.stabilisers && (
                      <Choice
                        label={t`Stabilisers`}
                        value={draft.feet ?? 'wheels'}
                        options={[
                          { value: 'wheels', label: t`Up` },
                          { value: 'stabilisers', label: t`Down` },
                        ]}
                        onChange={(feet) => change({ feet })}
                      />
                    )}
                    {displays && (
                      <SelectField
                        label={t`Tool on the ${displays.label.toLowerCase()}`}
                        value={draft.shown ?? ''}
                        options={[
                          { value: '', label: t`Not read` },
                          ...(truck.boom ? [] : [{ value: 'forks', label: t`Forks` }]),
                          ...tools.map((a) => ({ value: a.id, label: a.label })),
                        ]}
                        onChange={(shown) => change({ shown: shown === '' ? null : shown })}
                        hint={t`Read it there, not off the tool.`}
                      />
                    )}
                    {slabbed && (
                      <>
                        <Choice
                          label={t`Slabs on the counterweight`}
                          value={draft.slabs === null ? null : String(draft.slabs)}
                          options={each(columns).map((n) => ({ value: String(n), label: String(n) }))}
                          onChange={(n) => change({ slabs: Number(n), attachment: 'forks' })}
                        />
                        <SelectField
                          label={t`Moved out, measured`}
                          value={draft.extension_m === null ? '' : String(draft.extension_m)}
                          options={[
                            { value: '', label: t`Not measured` },
                            ...each(rows).map((m) => ({ value: String(m), label: `${m} m` })),
                          ]}
                          onChange={(m) => change({ extension_m: m === '' ? null : Number(m) })}
                        />
                      </>
                    )}
                    {battery && (
                      <NumberField
                        label={t`Battery, by its own plate`}
                        quantity="mass"
                        value={draft.battery_kg}
                        least={1}
                        onChange={(battery_kg) => change({ battery_kg })}
                        hint={t`The plate holds for ${battery.min_kg} to ${battery.max_kg} kg.`}
                      />
                    )}
                  </div>
                ),
              },
            ]
          : []),
        {
          id: 'floor',
          name: t`Floor`,
          verdict: unread ? 'not-proven' : null,
          body: (
            <div className="grid gap-3">
              <GroundField
                label={t`Floor it works on`}
                place={place}
                value={draft.floor}
                onChange={(floor) => change({ floor })}
              />
              <TolField
                label={t`Slope along, front high is plus`}
                quantity="angle"
                value={draft.pitch_deg}
                onChange={(pitch_deg) => change({ pitch_deg })}
              />
              <TolField
                label={t`Slope across, left high is plus`}
                quantity="angle"
                value={draft.roll_deg}
                onChange={(roll_deg) => change({ roll_deg })}
              />
              <Findings assessment={stands} open={opened} onOpen={setOpened} />
            </div>
          ),
        },
      ]}
      missing={unread ? { why: t`Say how level the floor is that it stacks on.`, at: 'floor' } : null}
    />
  )
}
