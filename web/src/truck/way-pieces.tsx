import type { Place, WayPart } from '@geolabe/core'
import type { ReactNode } from 'react'
import { Button } from '../look/button'
import { NumberField, SelectField } from '../look/field'
import { piece } from './draft'

const kindWords = [
  ['straight', 'Straight'],
  ['turn', 'Turn'],
  ['door', 'Door'],
  ['ramp', 'Ramp'],
  ['leveller', 'Leveller'],
  ['trailer', 'Trailer'],
] as const
const noses = [
  ['', 'Not looked at'],
  ['coupled', 'On its tractor'],
  ['stands', 'On stands'],
] as const
const surfaces = [
  ['dry', 'Dry'],
  ['wet', 'Wet'],
  ['wet-steel', 'Wet steel'],
  ['ice', 'Ice'],
] as const

type Kind = WayPart['kind']
/** What a truck drives over and through; on a road there is less. */
export const trucksMeet: readonly Kind[] = kindWords.map(([kind]) => kind)
export const roadsHave: readonly Kind[] = ['straight', 'turn', 'ramp']

/** A way, piece by piece, and what can be done with it beside adding another. */
export function WayPieces({
  place,
  way,
  kinds,
  onChange,
  children,
}: {
  place: Place
  way: readonly WayPart[]
  kinds: readonly Kind[]
  onChange: (way: WayPart[]) => void
  children?: ReactNode
}) {
  const part = (i: number, to: Partial<WayPart>) => onChange(way.map((p, k) => (k === i ? { ...p, ...to } : p)))
  return (
    <>
      {way.map((p, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: a piece is known by its place on the way
        <fieldset key={i} className="grid grid-cols-2 gap-2 border-t border-line pt-2 first:border-t-0">
          <legend className="font-bold">Piece {i + 1}</legend>
          <SelectField
            label="What"
            value={p.kind}
            options={kindWords.filter(([kind]) => kinds.includes(kind)).map(([value, label]) => ({ value, label }))}
            onChange={(kind) => part(i, { kind, radius_m: kind === 'turn' ? (p.radius_m ?? 3) : undefined })}
          />
          <SelectField
            label="Floor"
            value={p.floor?.id ?? ''}
            options={[{ value: '', label: 'Not known' }, ...place.ground.map((g) => ({ value: g.id, label: g.label }))]}
            onChange={(id) => part(i, { floor: place.ground.find((g) => g.id === id) ?? null })}
          />
          <NumberField
            label="Width"
            quantity="length"
            value={p.width_m}
            least={0.1}
            onChange={(width_m) => part(i, { width_m })}
          />
          <NumberField
            label="Clear height"
            quantity="length"
            value={p.height_m}
            least={0.1}
            onChange={(height_m) => part(i, { height_m })}
            hint="Empty: open above."
          />
          <NumberField
            label="Rises by"
            quantity="share"
            value={p.grade_pct / 100}
            onChange={(v) => part(i, { grade_pct: Math.round((v ?? 0) * 1e4) / 100 })}
            hint="Falling: minus."
          />
          <SelectField
            label="Surface"
            value={p.surface}
            options={surfaces.map(([value, label]) => ({ value, label }))}
            onChange={(surface) => part(i, { surface })}
          />
          {p.kind === 'turn' && (
            <NumberField
              label="Radius"
              quantity="length"
              value={p.radius_m ?? null}
              least={0.5}
              onChange={(v) => part(i, { radius_m: v ?? undefined })}
            />
          )}
          {p.kind === 'trailer' && (
            <SelectField
              label="Its nose"
              value={p.nose ?? ''}
              options={noses.map(([value, label]) => ({ value, label }))}
              onChange={(nose) => part(i, { nose: nose || null })}
            />
          )}
          {way.length > 1 && (
            <Button
              className="w-fit self-end"
              aria-label={`Take out piece ${i + 1}`}
              onClick={() => onChange(way.filter((_, k) => k !== i))}
            >
              Take out
            </Button>
          )}
        </fieldset>
      ))}
      <div className="flex flex-wrap gap-2">
        <Button onClick={() => onChange([...way, piece(place, way.at(-1)?.floor?.id ?? place.defaultGround)])}>
          Add a piece
        </Button>
        {children}
      </div>
    </>
  )
}
