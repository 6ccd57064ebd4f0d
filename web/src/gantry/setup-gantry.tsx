import type { GantryMachine } from '@geolabe/core'
import { useMemo, useState } from 'react'
import { useDraft } from '../api/draft'
import { t } from '../language/t'
import { Choice } from '../look/choice'
import { SelectField, TolField } from '../look/field'
import type { ShiftContext } from '../order/context'
import { FallFields, isUnread } from '../setup/fall-fields'
import { GroundField } from '../setup/ground-field'
import { type Closing, SetupStation } from '../setup/setup-station'
import { useSay } from '../units/units'
import { firstGantrySetup, type GantrySetupDraft, gantryPlanOf, isGantrySetup } from './draft'
import { GantryView } from './gantry-view'

type Tab = 'towers' | 'track'

/** Station: towers and headers measured, the track read, and what nobody can compute confirmed. */
export function SetupGantry({ shift, file, place, machine }: ShiftContext & { machine: GantryMachine }) {
  const say = useSay()
  const [draft, setDraft, clear] = useDraft<GantrySetupDraft>(
    `${shift.id}.set-up`,
    () => firstGantrySetup(machine, shift),
    isGantrySetup,
  )
  const [tab, setTab] = useState<Tab | Closing>('towers')
  const change = (to: Partial<GantrySetupDraft>) => setDraft((d) => ({ ...d, ...to }))
  const plan = useMemo(() => gantryPlanOf(draft, machine, place), [draft, machine, place])
  const unmeasured = draft.apart_m === null || draft.wide_m === null
  const level = isUnread(draft.fall)
  return (
    <SetupStation<Tab>
      shift={shift}
      machine={machine}
      plan={plan}
      draft={draft}
      onChange={change}
      clear={clear}
      below={t`Measure between towers and headers; what each carries comes from there`}
      drawing={
        <GantryView
          machine={machine}
          standing={plan.standing.on === 'towers' ? plan.standing : null}
          lift={null}
          tables={file.tables}
          assessment={null}
        />
      }
      open={tab}
      onOpen={setTab}
      tabs={[
        {
          id: 'towers',
          name: t`Towers`,
          verdict: unmeasured ? 'not-proven' : null,
          body: (
            <div className="grid gap-3">
              <TolField
                label={t`Between the headers`}
                quantity="length"
                value={draft.apart_m}
                least={0.5}
                onChange={(apart_m) => change({ apart_m })}
                hint={t`Middle to middle, along the track.`}
              />
              <TolField
                label={t`Between the towers of a header`}
                quantity="length"
                value={draft.wide_m}
                least={0.5}
                onChange={(wide_m) => change({ wide_m })}
              />
              <Choice
                label={t`How the load hangs`}
                value={draft.linkage}
                onChange={(linkage) => change({ linkage })}
                options={[
                  { value: 'one-point-per-header', label: t`One point a header`, note: t`shares by moments` },
                  { value: 'four-links', label: t`Four links`, note: t`two may carry it all` },
                ]}
              />
              <SelectField
                label={t`Under every tower`}
                value={draft.plate ?? ''}
                options={[
                  { value: '', label: t`Its footing alone` },
                  ...place.mats.map((m) => ({ value: m.id, label: m.label })),
                ]}
                onChange={(plate) => change({ plate: plate === '' ? null : plate })}
              />
              <GroundField label={t`Ground`} place={place} value={draft.ground} onChange={(ground) => change({ ground })} />
            </div>
          ),
        },
        {
          id: 'track',
          name: t`Track`,
          verdict: level ? 'not-proven' : null,
          body: (
            <div className="grid gap-3">
              <FallFields fall={draft.fall} onChange={(fall) => change({ fall })} />
              <p className="text-quiet">{t`At most ${say('share', machine.gantry.stand.level_pct / 100)} either way, over ${say('length', machine.gantry.stand.track_m)} of track.`}</p>
            </div>
          ),
        },
      ]}
      missing={unmeasured ? { why: t`Measure how far its towers stand apart.`, at: 'towers' } : null}
      unproven={level ? { why: t`The track is not read: a lift on it is not proven.`, at: 'track' } : null}
    />
  )
}
