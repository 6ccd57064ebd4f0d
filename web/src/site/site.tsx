import type { Shift, SiteRecord } from '@geolabe/contract'
import { type Feature, liftsOnOutriggers, lineApproach } from '@geolabe/core'
import { useState } from 'react'
import { useNavigate } from 'react-router'
import { newId } from '../api/client'
import { useDraft } from '../api/draft'
import { outbox } from '../api/outbox'
import { putShift, useMe, usePlaces } from '../api/queries'
import { Button } from '../look/button'
import { SelectField, TextField } from '../look/field'
import { ActionBar, Refused, Sheet, Title } from '../look/page'
import { useShiftContext } from '../shift/frame'
import { nextStation } from '../shift/route-line'
import { useSay } from '../units/units'
import { PlaceMap } from './place-map'

interface Draft {
  controls: Record<string, { agreed: boolean; control: string }>
  more: { label: string; control: string }[]
  team: string
}

/** Station 4 of the work: each hazard with its control, or the site is not fit for the job. */
export function Site() {
  const { shift, file, place } = useShiftContext()
  const me = useMe().data
  const navigate = useNavigate()
  const [draft, setDraft, clear] = useDraft<Draft>(`${shift.id}.site`, {
    controls: Object.fromEntries(
      place.hazards.map((h) => [
        h.id,
        {
          agreed: shift.site?.controls.some((c) => c.hazard === h.id) ?? false,
          control: shift.site?.controls.find((c) => c.hazard === h.id)?.control ?? h.control,
        },
      ]),
    ),
    more: shift.site?.more ?? [],
    team: shift.site?.team.join(', ') ?? me?.name ?? '',
  })
  const [error, setError] = useState<unknown>(null)
  const team = draft.team
    .split(',')
    .map((t) => t.trim())
    .filter(Boolean)
  const open = place.hazards.filter((h) => !draft.controls[h.id]?.agreed)
  const bareMore = draft.more.some((m) => m.label.trim() === '' || m.control.trim() === '')
  const why =
    open.length > 0
      ? `${open.length} ${open.length === 1 ? 'hazard' : 'hazards'} without an agreed control.`
      : bareMore
        ? 'A hazard you added still lacks words or a control.'
        : team.length === 0
          ? 'Name who looked at the site.'
          : ''

  const record = async (fit: boolean) => {
    setError(null)
    const body: SiteRecord = {
      controls: place.hazards
        .filter((h) => draft.controls[h.id]?.agreed)
        .map((h) => ({ hazard: h.id, control: draft.controls[h.id]?.control ?? h.control })),
      more: draft.more,
      team,
      fit,
    }
    try {
      const s = await outbox.send<Shift>('record-site', { shift: shift.id }, body)
      putShift(shift.id, s)
      clear()
      if (fit) navigate(`/shifts/${shift.id}/${liftsOnOutriggers(file.definition) ? 'set-up' : nextStation(s, file.definition)}`)
    } catch (e) {
      setError(e)
    }
  }
  const change = (id: string, to: Partial<Draft['controls'][string]>) =>
    setDraft((d) => ({ ...d, controls: { ...d.controls, [id]: { agreed: false, control: '', ...d.controls[id], ...to } } }))
  return (
    <>
      <Title below={place.note}>{`Look at ${place.name}`}</Title>
      <div className="grid items-start gap-5 lg:grid-cols-[1.1fr_1fr]">
        <div className="grid gap-3">
          {place.hazards.map((h) => {
            const c = draft.controls[h.id]
            return (
              <section
                key={h.id}
                className={`rounded-xl border-2 p-4 ${c?.agreed ? 'border-ink bg-sheet' : 'border-near bg-sheet'}`}
                aria-label={h.label}
              >
                <h2>{h.label}</h2>
                <div className="mt-2 grid items-end gap-3 sm:grid-cols-[1fr_auto]">
                  <TextField
                    label="Control"
                    value={c?.control ?? ''}
                    onChange={(control) => change(h.id, { control, agreed: false })}
                    rows={2}
                  />
                  <Button
                    aria-pressed={c?.agreed ?? false}
                    className={c?.agreed ? 'bg-ink! text-paper!' : ''}
                    disabled={!c?.control.trim()}
                    onClick={() => change(h.id, { agreed: !c?.agreed })}
                  >
                    {c?.agreed ? 'Agreed' : 'Agree this control'}
                  </Button>
                </div>
              </section>
            )
          })}
          {draft.more.map((m, i) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: rows are only added and taken off at their place
            <Sheet key={i}>
              <div className="grid gap-3">
                <TextField
                  label="Another hazard"
                  value={m.label}
                  onChange={(label) => setDraft((d) => ({ ...d, more: d.more.map((x, j) => (j === i ? { ...x, label } : x)) }))}
                />
                <TextField
                  label="Its control"
                  value={m.control}
                  onChange={(control) =>
                    setDraft((d) => ({ ...d, more: d.more.map((x, j) => (j === i ? { ...x, control } : x)) }))
                  }
                  rows={2}
                />
                <Button look="quiet" onClick={() => setDraft((d) => ({ ...d, more: d.more.filter((_, j) => j !== i) }))}>
                  Take it off
                </Button>
              </div>
            </Sheet>
          ))}
          <Button onClick={() => setDraft((d) => ({ ...d, more: [...d.more, { label: '', control: '' }] }))} className="w-fit">
            Add a hazard nobody listed
          </Button>
        </div>
        <div className="grid gap-4">
          {shift.site && <Moved shift={shift} />}
          <PlaceMap place={place} />
          <Lines lines={place.features.filter((f) => f.kind === 'overhead')} />
          <Sheet title="Who looked">
            <TextField
              label="Names, with commas between"
              value={draft.team}
              onChange={(v) => setDraft((d) => ({ ...d, team: v }))}
              hint="Operator, slinger, spotter, whoever walked it."
            />
          </Sheet>
          <Refused error={error} />
        </div>
      </div>
      <ActionBar why={why || 'Losing sight of anyone cancels the all-clear.'}>
        <Button onClick={() => void record(false)} disabled={team.length === 0}>
          Not fit for the job
        </Button>
        <Button look="next" disabled={why !== ''} onClick={() => void record(true)}>
          Site looked at, on to set-up
        </Button>
      </ActionBar>
    </>
  )
}

function Lines({ lines }: { lines: Feature[] }) {
  const say = useSay()
  if (lines.length === 0) return null
  return (
    <Sheet title="Overhead lines">
      <ul className="grid gap-2">
        {lines.map((l) => {
          const { required_m } = lineApproach({ voltage_kV: l.voltage_kV ?? null, distance_m: 0 })
          return (
            <li key={l.id}>
              <strong>{l.label}</strong>, {say('length', l.height_m ?? 0)} up: keep boom, rope and load at least{' '}
              <strong className="figure text-lg">
                {required_m === null ? 'the utility’s own distance' : say('length', required_m)}
              </strong>{' '}
              away. OSHA 1926.1408; the utility and local law decide.
            </li>
          )
        })}
      </ul>
    </Sheet>
  )
}

/** The machine stands somewhere else now: site, set-up and what was proved raised are asked anew. */
function Moved({ shift }: { shift: Shift }) {
  const places = usePlaces().data?.places ?? []
  const [place, setPlace] = useState(shift.place.id)
  const [words, setWords] = useState('')
  const [error, setError] = useState<unknown>(null)
  const move = async () => {
    setError(null)
    try {
      putShift(shift.id, await outbox.send<Shift>('move-machine', { shift: shift.id }, { id: newId(), place, words }))
    } catch (e) {
      setError(e)
    }
  }
  return (
    <Sheet title="Moved since it was looked at?">
      <div className="grid gap-3">
        <p className="text-quiet">
          Site, set-up and what was proved raised are then asked anew; what was lifted stays in the record.
        </p>
        <SelectField
          label="It stands now at"
          value={place}
          onChange={setPlace}
          options={places.map((p) => ({ value: p.id, label: p.name }))}
        />
        <TextField label="Where there" value={words} onChange={setWords} />
        <Button className="w-fit" onClick={() => void move()}>
          It has moved
        </Button>
        <Refused error={error} />
      </div>
    </Sheet>
  )
}
