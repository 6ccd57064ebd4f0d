import type { Place, WayPart } from '@geolabe/core'
import type { ReactNode } from 'react'
import { t } from '../language/t'
import { Button } from '../look/button'
import { NumberField, SelectField } from '../look/field'
import { piece } from './draft'

const kindWords = [
  ['straight', t`Straight`],
  ['turn', t`Turn`],
  ['door', t`Door`],
  ['ramp', t`Ramp`],
  ['leveller', t`Leveller`],
  ['trailer', t`Trailer`],
] as const
const noses = [
  ['', t`Not looked at`],
  ['coupled', t`On its tractor`],
  ['stands', t`On stands`],
] as const
const surfaces = [
  ['dry', t`Dry`],
  ['wet', t`Wet`],
  ['wet-steel', t`Wet steel`],
  ['ice', t`Ice`],
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
          <legend className="font-bold">{t`Piece ${i + 1}`}</legend>
          <SelectField
            label={t`What`}
            value={p.kind}
            options={kindWords.filter(([kind]) => kinds.includes(kind)).map(([value, label]) => ({ value, label }))}
            onChange={(kind) => part(i, { kind, radius_m: kind === 'turn' ? (p.radius_m ?? 3) : undefined })}
          />
          <SelectField
            label={t`Floor`}
            value={p.floor?.id ?? ''}
            options={[{ value: '', label: t`Not known` }, ...place.ground.map((g) => ({ value: g.id, label: g.label }))]}
            onChange={(id) => part(i, { floor: place.ground.find((g) => g.id === id) ?? null })}
          />
          <NumberField
            label={t`Width`}
            quantity="length"
            value={p.width_m}
            least={0.1}
            onChange={(width_m) => part(i, { width_m })}
          />
          <NumberField
            label={t`Clear height`}
            quantity="length"
            value={p.height_m}
            least={0.1}
            onChange={(height_m) => part(i, { height_m })}
            hint={t`Empty: open above.`}
          />
          <NumberField
            label={t`Rises by`}
            quantity="share"
            value={p.grade_pct / 100}
            onChange={(v) => part(i, { grade_pct: Math.round((v ?? 0) * 1e4) / 100 })}
            hint={t`Falling: minus.`}
          />
          <SelectField
            label={t`Surface`}
            value={p.surface}
            options={surfaces.map(([value, label]) => ({ value, label }))}
            onChange={(surface) => part(i, { surface })}
          />
          {p.kind === 'turn' && (
            <NumberField
              label={t`Radius`}
              quantity="length"
              value={p.radius_m ?? null}
              least={0.5}
              onChange={(v) => part(i, { radius_m: v ?? undefined })}
            />
          )}
          {p.kind === 'trailer' && (
            <SelectField
              label={t`Its nose`}
              value={p.nose ?? ''}
              options={noses.map(([value, label]) => ({ value, label }))}
              onChange={(nose) => part(i, { nose: nose || null })}
            />
          )}
          {way.length > 1 && (
            <Button
              className="w-fit self-end"
              aria-label={t`Take out piece ${i + 1}`}
              onClick={() => onChange(way.filter((_, k) => k !== i))}
            >{t`Take out`}</Button>
          )}
        </fieldset>
      ))}
      <div className="flex flex-wrap gap-2">
        <Button
          onClick={() => onChange([...way, piece(place, way.at(-1)?.floor?.id ?? place.defaultGround)])}
        >{t`Add a piece`}</Button>
        {children}
      </div>
    </>
  )
}
