import { askedFor, markedParts, type RunwayMachine } from '@geolabe/core'
import { useMemo, useState } from 'react'
import { useDraft } from '../api/draft'
import { plural, t } from '../language/t'
import { Button } from '../look/button'
import { NumberField } from '../look/field'
import { Lead } from '../look/lead'
import { Refused } from '../look/page'
import { Sheets } from '../look/sheets'
import { Station } from '../look/station'
import { closingTabs } from '../setup/closing-tabs'
import { useRecordSetup } from '../setup/record-setup'
import type { ShiftContext } from '../shift/frame'
import { BeamView, markName } from './beam-view'
import { firstRunwaySetup, isRunwaySetup, type RunwaySetupDraft, runwayPlanOf } from './draft'

type Tab = 'marks' | 'order' | 'confirm'

/** Station: a hoist under its beam: four marks read, and what nobody can compute confirmed. */
export function SetupRunway({ shift, place, machine }: ShiftContext & { machine: RunwayMachine }) {
  const [draft, setDraft, clear] = useDraft<RunwaySetupDraft>(`${shift.id}.set-up`, () => firstRunwaySetup(shift), isRunwaySetup)
  const { record, error } = useRecordSetup(shift, machine, clear)
  const [tab, setTab] = useState<Tab>('marks')
  const change = (to: Partial<RunwaySetupDraft>) => setDraft((d) => ({ ...d, ...to }))
  const plan = useMemo(() => runwayPlanOf(draft, machine, place), [draft, machine, place])
  const asked = askedFor(machine, plan.standing)
  const unconfirmed = asked.filter((e) => !draft.confirmed.some((c) => c.id === e.id)).length
  const unread = markedParts.filter((p) => draft.marks[p] === null).length
  const order = machine.procedures.setup
  const open = order.filter((s) => !draft.steps.includes(s.id)).length
  const lead: { why: string; at: Tab } | null =
    open > 0
      ? { why: plural(open, { one: '# step to confirm.', other: '# steps to confirm.' }), at: 'order' }
      : unread > 0
        ? {
            why: plural(unread, {
              one: '# mark not read: a lift is not proven.',
              other: '# marks not read: a lift is not proven.',
            }),
            at: 'marks',
          }
        : unconfirmed > 0
          ? { why: t`${unconfirmed} not confirmed: a lift from it is not proven.`, at: 'confirm' }
          : null
  return (
    <Station
      title={t`Set up ${machine.name}`}
      below={
        shift.setups.length > 0
          ? t`Recording a new set-up asks for every lift to be proved again.`
          : t`${machine.runway.travel.label}: read the four marks, the least governs`
      }
      head={<Refused error={error} />}
      drawing={<BeamView machine={machine} lift={null} marks={draft.marks} assessment={null} />}
      sheet={
        <Sheets
          label={t`The set-up, in the order it is worked`}
          open={tab}
          onOpen={setTab}
          tabs={[
            {
              id: 'marks',
              name: t`Marks`,
              verdict: unread > 0 ? 'not-proven' : null,
              body: (
                <div className="grid gap-3">
                  {markedParts.map((part) => (
                    <NumberField
                      key={part}
                      label={t`${markName[part]} is marked`}
                      quantity="mass"
                      value={draft.marks[part]}
                      least={1}
                      onChange={(kg) => change({ marks: { ...draft.marks, [part]: kg } })}
                    />
                  ))}
                  <p className="text-quiet">{t`Leave empty what bears no mark: nothing is lifted with it.`}</p>
                </div>
              ),
            },
            ...closingTabs({ order, ...draft, asked, by: shift.operator.id, onChange: change }),
          ]}
        />
      }
      why={lead && <Lead onFollow={() => setTab(lead.at)}>{lead.why}</Lead>}
      actions={
        <Button look="next" disabled={open > 0} onClick={() => void record(plan, draft.steps)}>{t`Record this set-up`}</Button>
      }
    />
  )
}
