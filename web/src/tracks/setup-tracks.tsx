import { assess, type Case, type Crane, type Finding, Refusal, worstVerdict } from '@geolabe/core'
import { useMemo, useState } from 'react'
import { useDraft } from '../api/draft'
import { t } from '../language/t'
import { Choice } from '../look/choice'
import { NumberField, SelectField, TolField } from '../look/field'
import type { ShiftContext } from '../order/context'
import { Findings } from '../prove/findings'
import { GroundField } from '../setup/ground-field'
import { type Closing, SetupStation } from '../setup/setup-station'
import { useSay } from '../units/units'
import { firstTracksSetup, groundThere, isTracksSetup, type TracksSetupDraft, tracksPlanOf, unladenAt } from './draft'
import { TracksView } from './tracks-view'

type Tab = 'rigged' | 'stand'

/** What of a proof with an empty hook says something about the set-up. */
const ofSetup = new Set(['level', 'ground', 'edge', 'backward', 'structure', 'evidence'])

/** Station: a crawler on its tracks: what is rigged, where and how level it stands, what raising its boom asks for. */
export function SetupTracks({ shift, file, place, machine }: ShiftContext & { machine: Crane }) {
  const say = useSay()
  const [draft, setDraft, clear] = useDraft<TracksSetupDraft>(
    `${shift.id}.set-up`,
    () => firstTracksSetup(machine, place, shift),
    isTracksSetup,
  )
  const [tab, setTab] = useState<Tab | Closing>('rigged')
  const [opened, setOpened] = useState('')
  const lengths = machine.boom.lengths_m
  const boom_m = draft.boom_m ?? 0
  const change = (to: Partial<TracksSetupDraft>) => setDraft((d) => ({ ...d, ...to }))
  const plan = useMemo(() => tracksPlanOf(draft, machine, place), [draft, machine, place])
  const tried = useMemo<Case>(
    () => ({
      machine,
      tables: file.tables,
      setup: plan,
      lift: unladenAt(machine, boom_m),
      conditions: { wind_mps: 0 },
      place,
      policy: place.policy,
    }),
    [machine, file.tables, plan, boom_m, place],
  )
  const findings = useMemo<readonly Finding[]>(() => {
    try {
      return assess(tried).findings.filter((f) => ofSetup.has(f.check))
    } catch (e) {
      if (e instanceof Refusal) return []
      throw e
    }
  }, [tried])
  const unread = draft.pitch_deg === null || draft.roll_deg === null
  const verdictOf = (checks: readonly string[]) => {
    const worst = worstVerdict(findings.filter((f) => checks.includes(f.check)).map((f) => f.verdict))
    return worst === 'inside' ? null : worst
  }
  return (
    <SetupStation<Tab>
      shift={shift}
      machine={machine}
      plan={plan}
      draft={draft}
      onChange={change}
      clear={clear}
      below={t`What is rigged selects the table`}
      drawing={<TracksView machine={machine} plan={tried} findings={findings} />}
      open={tab}
      onOpen={setTab}
      tabs={[
        {
          id: 'rigged',
          name: t`Rigged`,
          verdict: verdictOf(['structure', 'backward']),
          body: (
            <div className="grid gap-3">
              <SelectField
                label={t`Counterweight, and the mode it selects`}
                value={draft.counterweight}
                options={machine.upper.counterweights.map((c) => ({ value: c.id, label: c.label }))}
                onChange={(counterweight) => change({ counterweight })}
              />
              <Choice
                label={t`Parts of line`}
                value={draft.partsOfLine === null ? null : String(draft.partsOfLine)}
                options={machine.hoist.reevings.map((r) => ({ value: String(r.parts), label: String(r.parts) }))}
                onChange={(n) => change({ partsOfLine: Number(n) })}
              />
              <Choice
                label={t`Boom as it is built`}
                value={String(boom_m)}
                options={lengths.map((m) => ({ value: String(m), label: say('length', m) }))}
                onChange={(m) => change({ boom_m: Number(m) })}
              />
              <Findings
                assessment={{
                  findings: findings.filter((f) => f.check === 'structure' || f.check === 'backward'),
                  notChecked: [],
                }}
                open={opened}
                onOpen={setOpened}
              />
            </div>
          ),
        },
        {
          id: 'stand',
          name: t`Stand`,
          verdict: verdictOf(['level', 'ground', 'edge']),
          body: (
            <div className="grid gap-3">
              <SelectField
                label={t`Where it stands`}
                value={place.positions.find((p) => p.x_m === draft.position.x_m && p.y_m === draft.position.y_m)?.id ?? ''}
                options={[...place.positions.map((p) => ({ value: p.id, label: p.label })), { value: '', label: t`Elsewhere` }]}
                onChange={(id) => {
                  const p = place.positions.find((x) => x.id === id)
                  if (p) change({ position: { x_m: p.x_m, y_m: p.y_m, heading_deg: p.heading_deg }, ground: null })
                }}
              />
              <div className="grid grid-cols-3 gap-2">
                {(
                  [
                    ['x_m', 'length', t`East`],
                    ['y_m', 'length', t`North`],
                    ['heading_deg', 'angle', t`Heading`],
                  ] as const
                ).map(([field, quantity, label]) => (
                  <NumberField
                    key={field}
                    label={label}
                    quantity={quantity}
                    value={draft.position[field]}
                    onChange={(v) => v !== null && change({ position: { ...draft.position, [field]: v }, ground: null })}
                  />
                ))}
              </div>
              <GroundField
                label={t`Ground under the tracks`}
                place={place}
                value={draft.ground ?? groundThere(machine, place, draft.position)?.id}
                onChange={(ground) => change({ ground })}
              />
              <TolField
                label={t`Along, front high is plus`}
                quantity="angle"
                value={draft.pitch_deg}
                onChange={(pitch_deg) => change({ pitch_deg })}
              />
              <TolField
                label={t`Across, left high is plus`}
                quantity="angle"
                value={draft.roll_deg}
                onChange={(roll_deg) => change({ roll_deg })}
              />
              <Findings
                assessment={{
                  findings: findings.filter((f) => ['level', 'ground', 'edge'].includes(f.check)),
                  notChecked: [],
                }}
                open={opened}
                onOpen={setOpened}
              />
            </div>
          ),
        },
      ]}
      missing={draft.partsOfLine === null ? { why: t`Say the parts of line.`, at: 'rigged' } : null}
      unproven={unread ? { why: t`How level it stands is not read: a lift is not proven.`, at: 'stand' } : null}
    />
  )
}
