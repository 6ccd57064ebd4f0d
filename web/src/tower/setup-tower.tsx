import type { Crane } from '@geolabe/core'
import { useMemo, useState } from 'react'
import { useDraft } from '../api/draft'
import { t } from '../language/t'
import { Choice } from '../look/choice'
import { TextField } from '../look/field'
import type { ShiftContext } from '../order/context'
import { type Closing, SetupStation } from '../setup/setup-station'
import { firstTowerSetup, isTowerSetup, type TowerSetupDraft, towerPlanOf } from './draft'
import { TowerSide } from './tower-side'

type Tab = 'papers'

const today = () => new Date().toISOString().slice(0, 10)

/** Station: a tower on its base: its papers, how it is reeved, and what nobody can compute confirmed. */
export function SetupTower({ shift, file, place, machine }: ShiftContext & { machine: Crane }) {
  const [draft, setDraft, clear] = useDraft<TowerSetupDraft>(
    `${shift.id}.set-up`,
    () => firstTowerSetup(machine, shift),
    isTowerSetup,
  )
  const [tab, setTab] = useState<Tab | Closing>('papers')
  const change = (to: Partial<TowerSetupDraft>) => setDraft((d) => ({ ...d, ...to }))
  const plan = useMemo(() => towerPlanOf(draft, machine, place), [draft, machine, place])
  const unread = draft.certificate.trim() === '' || draft.until === ''
  const expired = draft.until !== '' && draft.until < today()
  return (
    <SetupStation<Tab>
      shift={shift}
      machine={machine}
      plan={plan}
      draft={draft}
      onChange={change}
      clear={clear}
      below={t`Papers of the base first`}
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
      ]}
      missing={draft.partsOfLine === null ? { why: t`Say the parts of line.`, at: 'papers' } : null}
      unproven={
        expired
          ? { why: t`The papers of its base have run out: nothing is lifted.`, at: 'papers' }
          : unread
            ? { why: t`The papers of its base are not read: a lift is not proven.`, at: 'papers' }
            : null
      }
    />
  )
}
