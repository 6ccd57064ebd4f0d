import type { StraddleMachine } from '@geolabe/core'
import { useMemo, useState } from 'react'
import { useDraft } from '../api/draft'
import { t } from '../language/t'
import { SelectField, TolField } from '../look/field'
import type { ShiftContext } from '../order/context'
import { FallFields, isUnread } from '../setup/fall-fields'
import { GroundField } from '../setup/ground-field'
import { type Closing, SetupStation } from '../setup/setup-station'
import { useSay } from '../units/units'
import { firstStraddleSetup, isStraddleSetup, type StraddleSetupDraft, straddlePlanOf } from './draft'
import { StraddleView } from './straddle-view'

type Tab = 'slings' | 'stand'
type Synchronised = NonNullable<StraddleSetupDraft['synchronised']>

const states: readonly { value: Synchronised | ''; label: string }[] = [
  { value: '', label: t`Not read` },
  { value: 'separate', label: t`Separate` },
  { value: 'selected', label: t`Together selected` },
  { value: 'aligning', label: t`Aligning` },
  { value: 'aligned', label: t`Aligned` },
]

/** Station: slings placed and measured, its panel read, and what nobody can compute confirmed. */
export function SetupStraddle({ shift, place, machine }: ShiftContext & { machine: StraddleMachine }) {
  const say = useSay()
  const [draft, setDraft, clear] = useDraft<StraddleSetupDraft>(
    `${shift.id}.set-up`,
    () => firstStraddleSetup(machine, shift),
    isStraddleSetup,
  )
  const [tab, setTab] = useState<Tab | Closing>('slings')
  const change = (to: Partial<StraddleSetupDraft>) => setDraft((d) => ({ ...d, ...to }))
  const plan = useMemo(() => straddlePlanOf(draft, place), [draft, place])
  const unmeasured = machine.hoists.each.some((h) => (draft.slings[h.id] ?? null) === null)
  const level = isUnread(draft.fall)
  const { rear_m, front_m, leastBetween_m } = machine.hoists.straddle.beams
  return (
    <SetupStation<Tab>
      shift={shift}
      machine={machine}
      plan={plan}
      draft={draft}
      onChange={change}
      clear={clear}
      below={t`Set the slings by the share, measure where they hang`}
      drawing={
        <StraddleView
          machine={machine}
          standing={plan.standing.on === 'frame' ? plan.standing : null}
          lift={null}
          assessment={null}
        />
      }
      open={tab}
      onOpen={setTab}
      tabs={[
        {
          id: 'slings',
          name: t`Slings`,
          verdict: unmeasured || draft.synchronised === null ? 'not-proven' : null,
          body: (
            <div className="grid gap-3">
              {machine.hoists.each.map((h) => (
                <TolField
                  key={h.id}
                  label={t`${h.label}: slings ahead of the middle`}
                  quantity="length"
                  value={draft.slings[h.id] ?? null}
                  onChange={(x_m) => change({ slings: { ...draft.slings, [h.id]: x_m } })}
                  hint={t`Behind it: minus.`}
                />
              ))}
              <p className="text-quiet">{t`They travel from ${say('length', rear_m)} to ${say('length', front_m)}, at least ${say('length', leastBetween_m)} from one to the other.`}</p>
              <SelectField
                label={t`Both hoists, as the panel shows`}
                value={draft.synchronised ?? ''}
                options={states}
                onChange={(v) => change({ synchronised: v === '' ? null : v })}
                hint={t`Both lift together only when aligned.`}
              />
            </div>
          ),
        },
        {
          id: 'stand',
          name: t`Stand`,
          verdict: level ? 'not-proven' : null,
          body: (
            <div className="grid gap-3">
              <GroundField
                label={t`What its wheels stand on`}
                place={place}
                value={draft.ground}
                onChange={(ground) => change({ ground })}
              />
              <FallFields fall={draft.fall} onChange={(fall) => change({ fall })} />
            </div>
          ),
        },
      ]}
      missing={unmeasured ? { why: t`Measure where the slings of both hoists hang.`, at: 'slings' } : null}
      unproven={
        draft.synchronised === null
          ? { why: t`The panel is not read: a lift is not proven.`, at: 'slings' }
          : level
            ? { why: t`How level it stands is not read: a lift is not proven.`, at: 'stand' }
            : null
      }
    />
  )
}
