import type { DrawingPage, PlaceDrawing } from '@geolabe/contract'
import { distanceToFeature, type Feature, type Place, placeDefinition, plainIssue, type Xy } from '@geolabe/core'
import { Trash2 } from 'lucide-react'
import { type ReactNode, useState } from 'react'
import { call, newId } from '../api/client'
import { useDraft } from '../api/draft'
import { queryClient } from '../api/me'
import { drawingKey, useDrawing } from '../api/queries'
import { DragPoint } from '../instruments/drag-point'
import { fine, type OnPlan, PlacePlan, usePlan } from '../instruments/place-plan'
import { t, told } from '../language/t'
import { asButton } from '../look/as-button'
import { Button } from '../look/button'
import { NumberField, PlainField, SelectField, TextField } from '../look/field'
import { FileButton } from '../look/file-button'
import { Refused } from '../look/page'
import { Tick } from '../look/tick'
import { when } from '../look/when'
import { GroundField } from '../setup/ground-field'
import {
  carriedOver,
  type Difference,
  differences,
  type Kind,
  kinds,
  newFeature,
  newStand,
  soilWords,
  structureWords,
} from './kinds'

interface DrawDraft extends PlaceDrawing {
  from: number
  /** What counted when it was begun. */
  base: PlaceDrawing
  why: string
}
type Chosen = { what: 'feature' | 'stand'; id: string } | null

export function useDraw(place: Place, person: string) {
  const page = useDrawing(place.id)
  const [draft, setDraft, clear] = useDraft<DrawDraft | null>(
    `place.${place.id}.draw`,
    null,
    (d) => d === null || d.base !== undefined,
  )
  const [chosen, setChosen] = useState<Chosen>(null)
  const [adding, setAdding] = useState<Kind | 'stand' | null>(null)
  const [error, setError] = useState<unknown>(null)
  const now = page.data?.place ?? place
  const waiting = page.data?.waiting ?? null
  // What waits is shown as it was drawn, until somebody draws over it.
  const { features, positions }: PlaceDrawing = draft ?? waiting?.drawing ?? now
  const shown: PlaceDrawing = { features, positions }
  const drawn: Place = { ...now, ...shown }
  const change = (to: Partial<PlaceDrawing>) =>
    setDraft((d) => ({
      ...(d ?? {
        ...shown,
        from: page.data?.revision ?? 1,
        base: { features: now.features, positions: now.positions },
        why: '',
      }),
      ...to,
    }))
  const setFeature = (id: string, to: Partial<Feature>) =>
    change({ features: shown.features.map((f) => (f.id === id ? { ...f, ...to } : f)) })
  const setStand = (id: string, to: Partial<PlaceDrawing['positions'][number]>) =>
    change({ positions: shown.positions.map((p) => (p.id === id ? { ...p, ...to } : p)) })
  const add = (at: Xy) => {
    if (adding === null) return
    const p: Xy = [fine(at[0]), fine(at[1])]
    if (adding === 'stand') {
      const stand = newStand(drawn, p)
      change({ positions: [...shown.positions, stand] })
      setChosen({ what: 'stand', id: stand.id })
    } else {
      const feature = newFeature(drawn, adding, p)
      change({ features: [...shown.features, feature] })
      setChosen({ what: 'feature', id: feature.id })
    }
    setAdding(null)
  }
  const sent = async (work: () => Promise<DrawingPage>) => {
    setError(null)
    try {
      const page = await work()
      clear()
      setDraft(null)
      setChosen(null)
      queryClient.setQueryData(drawingKey(place.id), page)
      void queryClient.invalidateQueries({ queryKey: ['places'] })
    } catch (e) {
      setError(e)
    }
  }
  const post = (path: string, body: unknown) =>
    call<DrawingPage>({ method: 'POST', path: `/places/${place.id}/${path}`, body, key: newId() })
  return {
    page,
    person,
    now,
    waiting,
    draft,
    drawn,
    chosen,
    setChosen,
    adding,
    setAdding,
    add,
    setFeature,
    setStand,
    change,
    error,
    setError,
    setWhy: (why: string) => setDraft((d) => d && { ...d, why }),
    forget: () => {
      clear()
      setDraft(null)
      setChosen(null)
      setError(null)
    },
    /** Somebody's drawing was checked since this one was begun. */
    overtaken: draft !== null && page.data !== undefined && draft.from !== page.data.revision,
    layOver: () =>
      setDraft(
        (d) =>
          d && {
            ...d,
            from: page.data?.revision ?? d.from,
            base: { features: now.features, positions: now.positions },
            features: carriedOver(d.base.features, d.features, now.features),
            positions: carriedOver(d.base.positions, d.positions, now.positions),
          },
      ),
    changes: changesOf(now, shown),
    fault: faultIn(drawn),
    send: () => {
      if (!draft) return Promise.resolve()
      const { from, why, features, positions } = draft
      return sent(() => post('drawing', { id: newId(), from, why: why.trim(), drawing: { features, positions } }))
    },
    check: (ok: boolean, words: string) => sent(() => post('drawing/check', { id: waiting?.id, ok, words })),
    take: async (file: File) => {
      setError(null)
      try {
        const body: unknown = JSON.parse(await file.text())
        await sent(() => post('features', body))
      } catch (e) {
        setError(e instanceof SyntaxError ? new Error('This file is no JSON. Choose the GeoJSON file of a place.') : e)
      }
    },
  }
}
export type Draw = ReturnType<typeof useDraw>

const changesOf = (now: Place, { features, positions }: PlaceDrawing): Difference[] => [
  ...differences(now.features, features),
  ...differences(now.positions, positions),
]

/** The first thing that a place cannot be drawn with, and whose it is. */
function faultIn(place: Place): { id: string | null; words: string } | null {
  const read = placeDefinition.safeParse(place)
  const [issue] = read.error?.issues ?? []
  if (!issue) return null
  const [list, i] = issue.path
  const of =
    list === 'features' && typeof i === 'number'
      ? place.features[i]
      : list === 'positions' && typeof i === 'number'
        ? place.positions[i]
        : undefined
  return { id: of?.id ?? null, words: `${of ? `${of.label}: ` : ''}${plainIssue(issue).message}` }
}

/** What a finger means: what it lies in, the smallest first; else what is nearest. */
function under(place: Place, [x_m, y_m]: Xy, reach_m: number): Chosen {
  const stand = place.positions.find((p) => Math.hypot(p.x_m - x_m, p.y_m - y_m) < reach_m)
  if (stand) return { what: 'stand', id: stand.id }
  const size = (f: Feature) => {
    const [xs, ys] = [f.geometry.points.map((p) => p[0]), f.geometry.points.map((p) => p[1])]
    return (Math.max(...xs) - Math.min(...xs)) * (Math.max(...ys) - Math.min(...ys))
  }
  const near = place.features
    .map((f) => ({ f, gap_m: distanceToFeature(f, { x_m, y_m }) }))
    .filter((x) => x.gap_m < (x.f.geometry.type === 'Polygon' ? 0.01 : reach_m))
    .sort((a, b) => size(a.f) - size(b.f))
  return near[0] ? { what: 'feature', id: near[0].f.id } : null
}

export function DrawMap({ draw }: { draw: Draw }) {
  const { drawn, chosen, changes } = draw
  // The paper stays while what lies on it is moved.
  const on = usePlan(draw.now)
  const feature = chosen?.what === 'feature' ? drawn.features.find((f) => f.id === chosen.id) : undefined
  const stand = chosen?.what === 'stand' ? drawn.positions.find((p) => p.id === chosen.id) : undefined
  return (
    <PlacePlan
      place={drawn}
      on={on}
      label={t`${drawn.name} from above: touch a thing to change it`}
      onTap={(at) => (draw.adding ? draw.add(at) : draw.setChosen(under(drawn, at, 1.5)))}
    >
      {drawn.features
        .filter((f) => changes.some((c) => c.id === f.id))
        .map((f) => (
          <path
            key={f.id}
            d={on.path(f.geometry.points, f.geometry.type === 'Polygon')}
            fill="none"
            stroke="var(--ink)"
            strokeWidth={on.thin * 5}
            strokeDasharray={`${on.thin * 12} ${on.thin * 8}`}
            pointerEvents="none"
          />
        ))}
      {drawn.positions.map((p) => (
        <StandMark key={p.id} stand={p} on={on} chosen={stand?.id === p.id} />
      ))}
      {feature && <Corners feature={feature} draw={draw} on={on} />}
      {stand && (
        <DragPoint
          on={on}
          name={t`${stand.label}, where it stands`}
          at={[stand.x_m, stand.y_m]}
          onMove={([x, y]) => draw.setStand(stand.id, { x_m: fine(x), y_m: fine(y) })}
        />
      )}
    </PlacePlan>
  )
}

function StandMark({ stand, on, chosen }: { stand: Place['positions'][number]; on: OnPlan; chosen: boolean }) {
  const r = on.half_m / 45
  return (
    <g transform={on.frame(stand)} pointerEvents="none">
      <circle r={r} fill={chosen ? 'var(--accent)' : 'var(--sheet)'} stroke="var(--ink)" strokeWidth={on.thin * 3} />
      <path d={`M0 ${-r}L0 ${-r * 2.6}`} stroke="var(--ink)" strokeWidth={on.thin * 4} />
    </g>
  )
}

const between = (a: Xy = [0, 0], b: Xy = [0, 0]): [number, number] => [fine((a[0] + b[0]) / 2), fine((a[1] + b[1]) / 2)]

function NewCorner({ name, at: [x, y], on, onPut }: { name: string; at: [number, number]; on: OnPlan; onPut: () => void }) {
  return (
    <g {...asButton(name, onPut)} className="cursor-pointer">
      <circle cx={x} cy={y} r={on.half_m / 28} fill="transparent" />
      <circle cx={x} cy={y} r={on.half_m / 90} fill="var(--sheet)" stroke="var(--ink)" strokeWidth={on.thin * 2.5} />
    </g>
  )
}

/** Each corner is dragged; the small one between two of them becomes a corner. */
function Corners({ feature, draw, on }: { feature: Feature; draw: Draw; on: OnPlan }): ReactNode {
  const { points, type } = feature.geometry
  const least = type === 'Polygon' ? 3 : 2
  const put = (to: [number, number][]) => draw.setFeature(feature.id, { geometry: { type, points: to } })
  const sides = type === 'Polygon' ? points.length : points.length - 1
  return (
    <>
      <path
        d={on.path(points, type === 'Polygon')}
        fill="none"
        stroke="var(--accent)"
        strokeWidth={on.thin * 7}
        pointerEvents="none"
      />
      {Array.from({ length: sides }, (_, i) => {
        const middle = between(points[i], points[(i + 1) % points.length])
        return (
          <NewCorner
            // biome-ignore lint/suspicious/noArrayIndexKey: a side is known by its place round the outline
            key={`side ${i}`}
            name={t`New corner after corner ${i + 1}`}
            at={on.paper(middle)}
            on={on}
            onPut={() => put([...points.slice(0, i + 1), middle, ...points.slice(i + 1)])}
          />
        )
      })}
      {points.map((p, i) => (
        <DragPoint
          // biome-ignore lint/suspicious/noArrayIndexKey: a corner is known by its place round the outline
          key={i}
          on={on}
          name={t`Corner ${i + 1} of ${points.length}`}
          at={p}
          onMove={([x, y]) => put(points.map((q, k) => (k === i ? [fine(x), fine(y)] : q)))}
          {...(points.length > least ? { onOut: () => put(points.filter((_, k) => k !== i)) } : {})}
        />
      ))}
      {feature.axis?.map((p, i) => (
        <DragPoint
          // biome-ignore lint/suspicious/noArrayIndexKey: its foot and its crest
          key={`axis ${i}`}
          on={on}
          name={i === 0 ? t`Foot of the slope` : t`Crest of the slope`}
          at={p}
          onMove={([x, y]) =>
            draw.setFeature(feature.id, {
              axis: feature.axis?.map((q, k) => (k === i ? [fine(x), fine(y)] : q)) as Feature['axis'],
            })
          }
        >
          {(x, y) => (
            <path
              d={
                i === 0
                  ? `M${x - on.half_m / 50} ${y}h${on.half_m / 25}`
                  : `M${x} ${y - on.half_m / 45}l${on.half_m / 50} ${on.half_m / 25}h${-on.half_m / 25}z`
              }
              fill="var(--near)"
              stroke="var(--ink)"
              strokeWidth={on.thin * 3}
            />
          )}
        </DragPoint>
      ))}
    </>
  )
}

const howWords: Record<Difference['how'], string> = { added: t`added`, gone: t`taken off`, changed: t`changed` }

export function DrawSheet({ draw }: { draw: Draw }) {
  const { chosen, drawn, adding, setAdding, waiting, draft, changes, fault, error } = draw
  const feature = chosen?.what === 'feature' ? drawn.features.find((f) => f.id === chosen.id) : undefined
  const stand = chosen?.what === 'stand' ? drawn.positions.find((p) => p.id === chosen.id) : undefined
  return (
    <div className="grid gap-3">
      <Refused error={error} />
      {waiting && !draft && <Waiting draw={draw} />}
      <SelectField
        label={t`What is drawn`}
        value={chosen ? `${chosen.what} ${chosen.id}` : ''}
        options={[
          { value: '', label: t`Touch it on the plan, or choose it here` },
          ...drawn.features.map((f) => ({ value: `feature ${f.id}`, label: f.label })),
          ...drawn.positions.map((p) => ({ value: `stand ${p.id}`, label: t`Stand: ${p.label}` })),
        ]}
        onChange={(v) => {
          const [what, ...id] = v.split(' ')
          draw.setChosen(v === '' ? null : { what: what === 'stand' ? 'stand' : 'feature', id: id.join(' ') })
        }}
      />
      {feature && <FeatureFields key={feature.id} feature={feature} draw={draw} />}
      {stand && <StandFields key={stand.id} stand={stand} draw={draw} />}
      {!feature && !stand && (
        <SelectField
          label={t`Draw something new`}
          value={adding ?? ''}
          options={[
            { value: '', label: t`Nothing` },
            ...Object.entries(kinds).map(([k, v]) => ({ value: k, label: v.label })),
            { value: 'stand', label: t`Stand for a machine` },
          ]}
          onChange={(v) => setAdding(v === '' ? null : (v as Kind | 'stand'))}
        />
      )}
      {adding && <p className="font-semibold">{t`Touch the plan where it is.`}</p>}
      {draft && (
        <>
          {draw.overtaken && (
            <div className="grid gap-2 rounded-lg border-2 border-unproven p-3">
              <p>{t`Somebody’s drawing was checked since this one was begun.`}</p>
              <Button className="w-fit" onClick={draw.layOver}>{t`Lay these changes over it`}</Button>
            </div>
          )}
          <Changes changes={changes} />
          {fault && <p className="font-semibold text-outside">{told(fault.words)}</p>}
          <TextField label={t`Why it is drawn anew`} value={draft.why} onChange={draw.setWhy} />
          <Button look="quiet" onClick={draw.forget}>{t`Drop these changes`}</Button>
        </>
      )}
      <Before draw={draw} />
      <section aria-label={t`The drawing of this place`} className="grid gap-2 border-t border-line pt-3">
        <p className="text-quiet">{t`What is drawn here goes out and comes in as GeoJSON, in metres of this place.`}</p>
        <div className="flex flex-wrap gap-2">
          <a
            className="inline-flex min-h-12 items-center rounded-lg border-2 border-edge px-4 font-semibold"
            href={`/api/places/${drawn.id}/features.geojson`}
            download={`${drawn.id}.geojson`}
          >{t`GeoJSON`}</a>
          <FileButton
            accept=".geojson,.json,application/geo+json,application/json"
            onFile={(f) => void draw.take(f)}
          >{t`Take from a file`}</FileButton>
        </div>
      </section>
    </div>
  )
}

function Changes({ changes }: { changes: readonly Difference[] }) {
  if (changes.length === 0) return <p className="text-quiet">{t`Nothing is changed.`}</p>
  return (
    <ul className="grid gap-0.5" aria-label={t`What is changed`}>
      {changes.map((c) => (
        <li key={`${c.how}${c.id}`}>
          <span className="font-semibold">{c.label}</span> {howWords[c.how]}
        </li>
      ))}
    </ul>
  )
}

/** A drawing that nobody else has looked at yet: until then lifts are proved by the one before. */
function Waiting({ draw }: { draw: Draw }) {
  const { waiting, changes, person } = draw
  const [words, setWords] = useState('')
  if (!waiting) return null
  const own = waiting.drawnBy.id === person
  return (
    <section className="grid gap-2 rounded-lg border-2 border-unproven p-3" aria-label={t`Waits for a second person`}>
      <h2>{t`Waits for a second person`}</h2>
      <p>{t`${waiting.drawnBy.name}, ${when(waiting.drawnAt)}: ${waiting.why}`}</p>
      <Changes changes={changes} />
      <p className="text-quiet">{t`Until it is checked lifts are proved by the drawing before. What is new there is there all the same.`}</p>
      <TextField label={own ? t`Why it is taken back` : t`What was seen there`} value={words} onChange={setWords} />
      <div className="flex flex-wrap gap-2">
        {!own && <Button look="next" onClick={() => void draw.check(true, words)}>{t`Seen there: it is so`}</Button>}
        <Button disabled={words.trim() === ''} onClick={() => void draw.check(false, words)}>
          {own ? t`Take it back` : t`It is not so`}
        </Button>
      </div>
    </section>
  )
}

function Before({ draw }: { draw: Draw }) {
  const { before = [], revision } = draw.page.data ?? {}
  if (before.length === 0) return revision === undefined ? null : <p className="text-quiet">{t`Revision ${revision}.`}</p>
  const stateWords = { taken: t`checked`, returned: t`sent back`, replaced: t`drawn over`, open: t`waits` }
  return (
    <details>
      <summary className="flex min-h-12 cursor-pointer items-center font-semibold">{t`Revision ${revision ?? 1}; drawn before: ${before.length}`}</summary>
      <ul className="grid gap-1.5">
        {before.map((b) => (
          <li key={b.id}>
            <span className="font-semibold">{b.why}</span> {b.drawnBy.name}, {when(b.drawnAt)}
            <span className="block text-quiet">
              {stateWords[b.state]}
              {b.checkedBy && `: ${b.checkedBy.name}`}
              {b.words && `, ${b.words}`}
            </span>
          </li>
        ))}
      </ul>
    </details>
  )
}

function StandFields({ stand, draw }: { stand: Place['positions'][number]; draw: Draw }) {
  const set = (to: Partial<typeof stand>) => draw.setStand(stand.id, to)
  return (
    <div className="grid gap-2">
      <TextField label={t`Its name`} value={stand.label} onChange={(label) => set({ label })} />
      <div className="grid grid-cols-3 gap-2">
        <NumberField label="x" quantity="length" value={stand.x_m} onChange={(v) => v !== null && set({ x_m: v })} />
        <NumberField label="y" quantity="length" value={stand.y_m} onChange={(v) => v !== null && set({ y_m: v })} />
        <NumberField
          label={t`Nose points`}
          quantity="angle"
          value={stand.heading_deg}
          onChange={(v) => v !== null && set({ heading_deg: v })}
        />
      </div>
      <TakeOff
        onOut={() => draw.change({ positions: draw.drawn.positions.filter((p) => p.id !== stand.id) })}
        disabled={draw.drawn.positions.length < 2}
        draw={draw}
      />
    </div>
  )
}

function TakeOff({ onOut, disabled = false, draw }: { onOut: () => void; disabled?: boolean; draw: Draw }) {
  return (
    <div className="flex flex-wrap gap-2">
      <Button onClick={() => draw.setChosen(null)}>{t`Done with it`}</Button>
      <Button
        disabled={disabled}
        onClick={() => {
          onOut()
          draw.setChosen(null)
        }}
      >
        <Trash2 size={18} aria-hidden="true" />
        {t`Take it off`}
      </Button>
    </div>
  )
}

/** What a thing says besides where it lies, and its corners by number. */
function FeatureFields({ feature, draw }: { feature: Feature; draw: Draw }) {
  const set = (to: Partial<Feature>) => draw.setFeature(feature.id, to)
  const { points, type } = feature.geometry
  return (
    <div className="grid gap-2">
      <p className="text-quiet">{kinds[feature.kind].label}</p>
      <TextField label={t`Its name`} value={feature.label} onChange={(label) => set({ label })} />
      {kinds[feature.kind].fields.map((f) => (
        <FieldIn key={f.field} f={f} feature={feature} set={set} place={draw.drawn} />
      ))}
      <details>
        <summary className="flex min-h-12 cursor-pointer items-center font-semibold">{t`Corners by number: ${points.length}`}</summary>
        <div className="grid gap-2">
          {points.map((p, i) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: a corner is known by its place round the outline
            <div key={i} className="grid grid-cols-2 gap-2">
              {(['x', 'y'] as const).map((axis, k) => (
                <NumberField
                  key={axis}
                  label={`${axis} ${i + 1}`}
                  quantity="length"
                  value={p[k] ?? 0}
                  onChange={(v) =>
                    v !== null &&
                    set({ geometry: { type, points: points.map((q, n) => (n === i ? (k === 0 ? [v, q[1]] : [q[0], v]) : q)) } })
                  }
                />
              ))}
            </div>
          ))}
        </div>
      </details>
      <TakeOff onOut={() => draw.change({ features: draw.drawn.features.filter((f) => f.id !== feature.id) })} draw={draw} />
    </div>
  )
}

type FieldOf = (typeof kinds)[Kind]['fields'][number]

function FieldIn({
  f,
  feature,
  set,
  place,
}: {
  f: FieldOf
  feature: Feature
  set: (to: Partial<Feature>) => void
  place: Place
}): ReactNode {
  const engineer = feature.engineer
  switch (f.field) {
    case 'ground':
      return (
        <GroundField label={t`What lies there`} place={place} value={feature.ground} onChange={(ground) => set({ ground })} />
      )
    case 'soil':
      return (
        <SelectField
          label={t`In what ground`}
          value={feature.soil ?? ''}
          options={[{ value: '', label: t`Not known` }, ...Object.entries(soilWords).map(([value, label]) => ({ value, label }))]}
          onChange={(v) => set({ soil: v === '' ? undefined : (v as NonNullable<Feature['soil']>) })}
        />
      )
    case 'structure':
      return (
        <SelectField
          label={t`Beside it`}
          value={feature.structure ?? ''}
          options={[
            { value: '', label: t`Not known` },
            ...Object.entries(structureWords).map(([value, label]) => ({ value, label })),
          ]}
          onChange={(v) => set({ structure: v === '' ? undefined : (v as NonNullable<Feature['structure']>) })}
        />
      )
    case 'hollow':
      return (
        <Tick
          checked={feature.hollow === true}
          onChange={(on) => set({ hollow: on ? true : undefined })}
        >{t`Trucks drive in by its doors`}</Tick>
      )
    case 'axis':
      return <p className="text-quiet">{t`Drag its foot and its crest on the plan.`}</p>
    case 'engineer':
      return (
        <div className="grid grid-cols-2 gap-2">
          <NumberField
            label={t`Engineer: feet stay away by`}
            quantity="length"
            least={0.01}
            value={engineer?.least_m ?? null}
            onChange={(v) =>
              set({ engineer: v === null ? undefined : { least_m: v, source: engineer?.source || t`Name the engineer` } })
            }
          />
          {engineer && (
            <TextField
              label={t`By whom`}
              value={engineer.source}
              onChange={(source) => set({ engineer: { ...engineer, source } })}
            />
          )}
        </div>
      )
    case 'voltage_kV':
    case 'grade_pct':
      return <PlainField label={f.label} value={feature[f.field] ?? null} onChange={(v) => set({ [f.field]: v ?? undefined })} />
    default:
      return (
        <NumberField
          label={f.label}
          quantity="length"
          least={0}
          optional={!f.needed}
          value={feature[f.field] ?? null}
          onChange={(v) => set({ [f.field]: v ?? undefined })}
        />
      )
  }
}
