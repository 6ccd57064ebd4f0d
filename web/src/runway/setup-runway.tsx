import { markedParts, type RunwayMachine } from '@geolabe/core'
import { useMemo, useState } from 'react'
import { useDraft } from '../api/draft'
import { plural, t } from '../language/t'
import { NumberField } from '../look/field'
import type { ShiftContext } from '../order/context'
import { type Closing, SetupStation } from '../setup/setup-station'
import { BeamView, markName } from './beam-view'
import { firstRunwaySetup, isRunwaySetup, type RunwaySetupDraft, runwayPlanOf } from './draft'

type Tab = 'marks'

/** Station: a hoist under its beam: four marks read, and what nobody can compute confirmed. */
export function SetupRunway({ shift, place, machine }: ShiftContext & { machine: RunwayMachine }) {
  const [draft, setDraft, clear] = useDraft<RunwaySetupDraft>(`${shift.id}.set-up`, () => firstRunwaySetup(shift), isRunwaySetup)
  const [tab, setTab] = useState<Tab | Closing>('marks')
  const change = (to: Partial<RunwaySetupDraft>) => setDraft((d) => ({ ...d, ...to }))
  const plan = useMemo(() => runwayPlanOf(draft, machine, place), [draft, machine, place])
  const unread = markedParts.filter((p) => draft.marks[p] === null).length
  return (
    <SetupStation<Tab>
      shift={shift}
      machine={machine}
      plan={plan}
      draft={draft}
      onChange={change}
      clear={clear}
      below={t`${machine.runway.travel.label}: read the four marks, the least governs`}
      drawing={<BeamView machine={machine} lift={null} marks={draft.marks} assessment={null} />}
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
      ]}
      missing={null}
      unproven={
        unread > 0
          ? {
              why: plural(unread, {
                one: '# mark not read: a lift is not proven.',
                other: '# marks not read: a lift is not proven.',
              }),
              at: 'marks',
            }
          : null
      }
    />
  )
}
