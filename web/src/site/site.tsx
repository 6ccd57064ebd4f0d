import { moveRequest, type Shift, type SiteRecord } from '@geolabe/contract'
import { type Feature, isProvable, lineApproach, type Place } from '@geolabe/core'
import { Pencil } from 'lucide-react'
import { useState } from 'react'
import { Link, useNavigate } from 'react-router'
import { newId } from '../api/client'
import { useDraft } from '../api/draft'
import { useMe } from '../api/me'
import { outbox } from '../api/outbox'
import { putShift, useDrawing, usePlaces } from '../api/queries'
import { rich } from '../language/rich'
import { plural, t } from '../language/t'
import { Button } from '../look/button'
import { SelectEntry } from '../look/entries'
import { TextField } from '../look/field'
import { Form, TextEntry, useEntry } from '../look/form'
import { Refused } from '../look/page'
import { Sheets } from '../look/sheets'
import { Station } from '../look/station'
import { useShiftContext } from '../order/context'
import { nextStation } from '../shift/route-line'
import { withWaiting } from '../shift/shown-shift'
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
  const [tab, setTab] = useState<'hazards' | 'lines' | 'team' | 'moved'>('hazards')
  const team = draft.team
    .split(',')
    .map((t) => t.trim())
    .filter(Boolean)
  const open = place.hazards.filter((h) => !draft.controls[h.id]?.agreed)
  const bareMore = draft.more.some((m) => m.label.trim() === '' || m.control.trim() === '')
  const why =
    open.length > 0
      ? plural(open.length, { one: '# hazard without an agreed control.', other: '# hazards without an agreed control.' })
      : bareMore
        ? t`A hazard you added still lacks words or a control.`
        : team.length === 0
          ? t`Name who looked at the site.`
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
      const answered = await outbox.sendPatiently<Shift, 'record-site'>('record-site', { shift: shift.id }, body)
      // What was entered before it may still be on its way; the work goes on.
      const s = answered ?? withWaiting(shift, outbox.read().waiting)
      if (answered) putShift(shift.id, answered)
      clear()
      if (fit) navigate(`/shifts/${shift.id}/${isProvable(file.definition) ? 'set-up' : nextStation(s, file.definition)}`)
    } catch (e) {
      setError(e)
    }
  }
  const change = (id: string, to: Partial<Draft['controls'][string]>) =>
    setDraft((d) => ({ ...d, controls: { ...d.controls, [id]: { agreed: false, control: '', ...d.controls[id], ...to } } }))
  return (
    <Station
      title={t`Look at ${place.name}`}
      below={place.note}
      head={
        <>
          <Refused error={error} />
          <DrawnAnew place={place} />
        </>
      }
      first="drawing"
      drawing={<PlaceMap place={place} />}
      sheet={
        <Sheets
          label={t`What was looked at`}
          open={tab}
          onOpen={setTab}
          tabs={[
            {
              id: 'hazards',
              name: t`Hazards`,
              verdict: open.length > 0 ? 'not-proven' : null,
              body: (
                <div className="grid gap-2">
                  {place.hazards.map((h) => (
                    <HazardLine
                      key={h.id}
                      label={h.label}
                      control={draft.controls[h.id]?.control ?? ''}
                      agreed={draft.controls[h.id]?.agreed ?? false}
                      onControl={(control) => change(h.id, { control, agreed: false })}
                      onAgreed={(agreed) => change(h.id, { agreed })}
                    />
                  ))}
                  <MoreHazards more={draft.more} onChange={(more) => setDraft((d) => ({ ...d, more }))} />
                </div>
              ),
            },
            {
              id: 'lines',
              name: t`Overhead lines`,
              body: (
                <div className="grid gap-4">
                  <Lines lines={place.features.filter((f) => f.kind === 'overhead')} />
                  <Link
                    className="inline-flex min-h-12 items-center font-semibold underline underline-offset-4"
                    to={`/places/${place.id}?tab=draw`}
                  >{t`Something stands otherwise: draw it`}</Link>
                </div>
              ),
            },
            {
              id: 'team',
              name: t`Who looked`,
              verdict: team.length === 0 ? 'not-proven' : null,
              body: (
                <TextField
                  label={t`Names, with commas between`}
                  value={draft.team}
                  onChange={(v) => setDraft((d) => ({ ...d, team: v }))}
                  hint={t`Operator, slinger, spotter, whoever walked it.`}
                />
              ),
            },
            ...(shift.site ? [{ id: 'moved' as const, name: t`Moved?`, body: <Moved shift={shift} /> }] : []),
          ]}
        />
      }
      why={why || t`Losing sight of anyone cancels the all-clear.`}
      actions={
        <>
          <Button onClick={() => void record(false)} disabled={team.length === 0}>{t`Not fit for the job`}</Button>
          <Button look="next" disabled={why !== ''} onClick={() => void record(true)}>{t`Site looked at, on to set-up`}</Button>
        </>
      }
    />
  )
}

/** Somebody has drawn this place anew, and nobody else has looked at that yet: what is new there is there all the same. */
function DrawnAnew({ place }: { place: Place }) {
  const waiting = useDrawing(place.id).data?.waiting
  if (!waiting) return null
  return (
    <p className="rounded-lg border-2 border-unproven px-3 py-2">
      {t`${waiting.drawnBy.name} has drawn this place anew: ${waiting.why}. Nobody has checked it; lifts are proved by the drawing before.`}{' '}
      <Link className="font-semibold underline underline-offset-4" to={`/places/${place.id}?tab=draw`}>{t`Look at it`}</Link>
    </p>
  )
}

/** One hazard and its control: agreed with one touch, or put in one's own words first. */
function HazardLine({
  label,
  control,
  agreed,
  onControl,
  onAgreed,
}: {
  label: string
  control: string
  agreed: boolean
  onControl: (words: string) => void
  onAgreed: (agreed: boolean) => void
}) {
  const [writing, setWriting] = useState(false)
  return (
    <section className={`rounded-lg border-2 px-3 py-2 ${agreed ? 'border-ink bg-sunk' : 'border-near'}`} aria-label={label}>
      <div className="grid items-center gap-x-3 gap-y-1 sm:grid-cols-[1fr_auto]">
        <div className="min-w-0">
          <h2 className="text-[1.02rem]">{label}</h2>
          {!writing && <p className="leading-snug">{control || t`No control yet.`}</p>}
        </div>
        <div className="flex items-center justify-end gap-1">
          {!writing && (
            <button
              type="button"
              aria-label={t`Other words for the control: ${label}`}
              className="grid size-12 place-items-center"
              onClick={() => setWriting(true)}
            >
              <Pencil size={20} aria-hidden="true" />
            </button>
          )}
          <Button
            aria-pressed={agreed}
            className={agreed ? 'bg-ink! text-paper!' : ''}
            disabled={!control.trim()}
            onClick={() => {
              setWriting(false)
              onAgreed(!agreed)
            }}
          >
            {agreed ? t`Agreed` : t`Agree this control`}
          </Button>
        </div>
      </div>
      {writing && <TextField label={t`Control`} value={control} onChange={onControl} rows={2} />}
    </section>
  )
}

/** Hazards that nobody had listed. */
function MoreHazards({ more, onChange }: { more: Draft['more']; onChange: (more: Draft['more']) => void }) {
  const set = (i: number, to: Partial<Draft['more'][number]>) => onChange(more.map((x, j) => (j === i ? { ...x, ...to } : x)))
  return (
    <>
      {more.map((m, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: rows are only added and taken off at their place
        <div key={i} className="grid gap-2 rounded-lg border-2 border-edge p-3">
          <TextField label={t`Another hazard`} value={m.label} onChange={(label) => set(i, { label })} />
          <TextField label={t`Its control`} value={m.control} onChange={(control) => set(i, { control })} rows={2} />
          <Button look="quiet" onClick={() => onChange(more.filter((_, j) => j !== i))}>{t`Take it off`}</Button>
        </div>
      ))}
      <Button
        onClick={() => onChange([...more, { label: '', control: '' }])}
        className="w-fit"
      >{t`Add a hazard nobody listed`}</Button>
    </>
  )
}

function Lines({ lines }: { lines: Feature[] }) {
  const say = useSay()
  if (lines.length === 0) return <p>{t`None is drawn for this place. Look up; what nobody drew is there all the same.`}</p>
  return (
    <ul className="grid gap-2">
      {lines.map((l) => {
        const { required_m } = lineApproach({ voltage_kV: l.voltage_kV ?? null, distance_m: 0 })
        return (
          <li
            key={l.id}
          >{rich`${<strong>{l.label}</strong>}, ${say('length', l.height_m ?? 0)} up: keep boom, rope and load at least ${<strong className="figure text-lg">{required_m === null ? t`the utility’s own distance` : say('length', required_m)}</strong>} away. OSHA 1926.1408; the utility and local law decide.`}</li>
        )
      })}
    </ul>
  )
}

/** The machine stands somewhere else now: site, set-up and what was proved raised are asked anew. */
function Moved({ shift }: { shift: Shift }) {
  const places = usePlaces().data?.places ?? []
  const form = useEntry(moveRequest, { id: newId(), place: shift.place.id, words: '' })
  const [error, setError] = useState<unknown>(null)
  const move = form.handleSubmit(async (body) => {
    setError(null)
    try {
      putShift(shift.id, await outbox.send<Shift>('move-machine', { shift: shift.id }, body))
    } catch (e) {
      setError(e)
    }
  })
  return (
    <Form onSubmit={move}>
      <h2>{t`Moved since it was looked at?`}</h2>
      <p className="text-quiet">{t`Site, set-up and what was proved raised are then asked anew; what was lifted stays in the record.`}</p>
      <SelectEntry
        control={form.control}
        name="place"
        label={t`It stands now at`}
        options={places.map((p) => ({ value: p.id, label: p.name }))}
      />
      <TextEntry control={form.control} name="words" label={t`Where there`} />
      <Button className="w-fit" type="submit">{t`It has moved`}</Button>
      <Refused error={error} />
    </Form>
  )
}
