import { askedFor, type Crane } from '@geolabe/core'
import { useMemo, useState } from 'react'
import { useDraft } from '../api/draft'
import { plural, t } from '../language/t'
import { Button } from '../look/button'
import { Choice } from '../look/choice'
import { TextField } from '../look/field'
import { Lead } from '../look/lead'
import { Refused } from '../look/page'
import { Sheets } from '../look/sheets'
import { Station } from '../look/station'
import { closingTabs } from '../setup/closing-tabs'
import { useRecordSetup } from '../setup/record-setup'
import type { ShiftContext } from '../shift/frame'
import { firstTowerSetup, isTowerSetup, type TowerSetupDraft, towerPlanOf } from './draft'
import { TowerSide } from './tower-side'

type Tab = 'papers' | 'order' | 'confirm'

const today = () => new Date().toISOString().slice(0, 10)

/** Station: a tower on its base: its papers, how it is reeved, and what nobody can compute confirmed. */
export function SetupTower({ shift, file, place, machine }: ShiftContext & { machine: Crane }) {
  const [draft, setDraft, clear] = useDraft<TowerSetupDraft>(
    `${shift.id}.set-up`,
    () => firstTowerSetup(machine, shift),
    isTowerSetup,
  )
  const { record, error } = useRecordSetup(shift, machine, clear)
  const [tab, setTab] = useState<Tab>('papers')
  const change = (to: Partial<TowerSetupDraft>) => setDraft((d) => ({ ...d, ...to }))
  const plan = useMemo(() => towerPlanOf(draft, machine, place), [draft, machine, place])
  const asked = askedFor(machine, plan.standing)
  const unconfirmed = asked.filter((e) => !draft.confirmed.some((c) => c.id === e.id)).length
  const order = machine.procedures.setup
  const open = order.filter((s) => !draft.steps.includes(s.id)).length
  const unread = draft.certificate.trim() === '' || draft.until === ''
  const expired = draft.until !== '' && draft.until < today()
  const lead: { why: string; at: Tab } | null =
    draft.partsOfLine === null
      ? { why: t`Say in how many parts of line it is reeved.`, at: 'papers' }
      : open > 0
        ? { why: plural(open, { one: '# step to confirm.', other: '# steps to confirm.' }), at: 'order' }
        : unread || expired
          ? {
              why: expired
                ? t`The papers of its base have run out: nothing is lifted.`
                : t`The papers of its base are not read: a lift is not proven.`,
              at: 'papers',
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
          : t`Read the papers of its base; nothing here works out whether it stands`
      }
      head={<Refused error={error} />}
      drawing={
        <TowerSide
          machine={machine}
          tables={file.tables}
          partsOfLine={draft.partsOfLine}
          radius_m={null}
          hung_kg={null}
          wind_mps={null}
          label={machine.name}
        />
      }
      sheet={
        <Sheets
          label={t`The set-up, in the order it is worked`}
          open={tab}
          onOpen={setTab}
          tabs={[
            {
              id: 'papers',
              name: t`Papers`,
              verdict: unread || expired ? 'not-proven' : null,
              body: (
                <div className="grid gap-3">
                  <Choice
                    label={t`Parts of line`}
                    value={draft.partsOfLine === null ? null : String(draft.partsOfLine)}
                    options={machine.hoist.reevings.map((r) => ({ value: String(r.parts), label: String(r.parts) }))}
                    onChange={(n) => change({ partsOfLine: Number(n) })}
                  />
                  <TextField
                    label={t`Papers of its base, number`}
                    value={draft.certificate}
                    onChange={(certificate) => change({ certificate })}
                  />
                  <TextField
                    type="date"
                    label={t`They hold until`}
                    value={draft.until}
                    onChange={(until) => change({ until })}
                    {...(expired ? { error: t`This day is past.` } : {})}
                  />
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
          disabled={open > 0 || draft.partsOfLine === null}
          onClick={() => void record(plan, draft.steps)}
        >{t`Record this set-up`}</Button>
      }
    />
  )
}
