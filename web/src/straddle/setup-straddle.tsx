import { askedFor, type StraddleMachine } from '@geolabe/core'
import { useMemo, useState } from 'react'
import { useDraft } from '../api/draft'
import { plural, t } from '../language/t'
import { Button } from '../look/button'
import { SelectField, TolField } from '../look/field'
import { Lead } from '../look/lead'
import { Refused } from '../look/page'
import { Sheets } from '../look/sheets'
import { Station } from '../look/station'
import { closingTabs } from '../setup/closing-tabs'
import { FallFields, isUnread } from '../setup/fall-fields'
import { useRecordSetup } from '../setup/record-setup'
import type { ShiftContext } from '../shift/frame'
import { useSay } from '../units/units'
import { firstStraddleSetup, isStraddleSetup, type StraddleSetupDraft, straddlePlanOf } from './draft'
import { StraddleView } from './straddle-view'

type Tab = 'slings' | 'stand' | 'order' | 'confirm'
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
  const { record, error } = useRecordSetup(shift, machine, clear)
  const [tab, setTab] = useState<Tab>('slings')
  const change = (to: Partial<StraddleSetupDraft>) => setDraft((d) => ({ ...d, ...to }))
  const plan = useMemo(() => straddlePlanOf(draft, place), [draft, place])
  const asked = askedFor(machine, plan.standing)
  const unconfirmed = asked.filter((e) => !draft.confirmed.some((c) => c.id === e.id)).length
  const order = machine.procedures.setup
  const open = order.filter((s) => !draft.steps.includes(s.id)).length
  const unmeasured = machine.hoists.each.some((h) => (draft.slings[h.id] ?? null) === null)
  const level = isUnread(draft.fall)
  const { rear_m, front_m, leastBetween_m } = machine.hoists.straddle.beams
  const lead: { why: string; at: Tab } | null = unmeasured
    ? { why: t`Measure where the slings of both hoists hang.`, at: 'slings' }
    : open > 0
      ? { why: plural(open, { one: '# step to confirm.', other: '# steps to confirm.' }), at: 'order' }
      : draft.synchronised === null
        ? { why: t`The panel is not read: a lift is not proven.`, at: 'slings' }
        : level
          ? { why: t`How level it stands is not read: a lift is not proven.`, at: 'stand' }
          : unconfirmed > 0
            ? { why: t`${unconfirmed} not confirmed: a lift from it is not proven.`, at: 'confirm' }
            : null
  return (
    <Station
      title={t`Set up ${machine.name}`}
      below={
        shift.setups.length > 0
          ? t`Recording a new set-up asks for every lift to be proved again.`
          : t`Set the slings by the share, measure where they hang`
      }
      head={<Refused error={error} />}
      drawing={
        <StraddleView
          machine={machine}
          standing={plan.standing.on === 'frame' ? plan.standing : null}
          lift={null}
          assessment={null}
        />
      }
      sheet={
        <Sheets
          label={t`The set-up, in the order it is worked`}
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
                  <SelectField
                    label={t`What its wheels stand on`}
                    value={draft.ground ?? place.defaultGround}
                    options={place.ground.map((g) => ({ value: g.id, label: g.label }))}
                    onChange={(ground) => change({ ground })}
                  />
                  <FallFields fall={draft.fall} onChange={(fall) => change({ fall })} />
                </div>
              ),
            },
            ...closingTabs({ order, ...draft, asked, by: shift.operator.id, onChange: change }),
          ]}
        />
      }
      why={lead && <Lead onFollow={() => setTab(lead.at)}>{lead.why}</Lead>}
      actions={
        <Button
          look="next"
          disabled={open > 0 || unmeasured}
          onClick={() => void record(plan, draft.steps)}
        >{t`Record this set-up`}</Button>
      }
    />
  )
}
