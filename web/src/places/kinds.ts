import { inFieldOrder } from '@geolabe/contract'
import type { Feature, Place } from '@geolabe/core'
import { t } from '../language/t'

export type Kind = Feature['kind']

/** A figure or a choice that a kind of thing has besides where it lies. */
export type FieldOf =
  | { field: 'height_m' | 'width_m' | 'sag_m' | 'blowOut_m' | 'drop_m'; label: string; needed: boolean }
  | { field: 'voltage_kV' | 'grade_pct'; label: string; needed: boolean }
  | { field: 'ground' | 'soil' | 'structure' | 'hollow' | 'axis' | 'engineer' }

interface KindOf {
  label: string
  shape: 'Polygon' | 'LineString'
  fields: readonly FieldOf[]
}

const height = (needed: boolean): FieldOf => ({ field: 'height_m', label: t`Height`, needed })
const slope: readonly FieldOf[] = [
  { field: 'grade_pct', label: t`Rises, per cent`, needed: true },
  { field: 'axis' },
  { field: 'ground' },
]

/** Everything that can be drawn at a place, in the order in which it is offered. */
export const kinds: Record<Kind, KindOf> = {
  solid: { label: t`Wall, building or other thing`, shape: 'Polygon', fields: [height(false), { field: 'hollow' }] },
  void: { label: t`Water, pit or shaft`, shape: 'Polygon', fields: [] },
  ground: { label: t`Floor or ground`, shape: 'Polygon', fields: [{ field: 'ground' }] },
  edge: {
    label: t`Edge that drops away`,
    shape: 'LineString',
    fields: [
      { field: 'drop_m', label: t`How deep it drops`, needed: true },
      { field: 'soil' },
      { field: 'structure' },
      { field: 'engineer' },
    ],
  },
  overhead: {
    label: t`Overhead line`,
    shape: 'LineString',
    fields: [
      height(true),
      { field: 'voltage_kV', label: t`Voltage, kV`, needed: false },
      { field: 'sag_m', label: t`May hang lower by`, needed: false },
      { field: 'blowOut_m', label: t`May blow out by`, needed: false },
    ],
  },
  people: { label: t`Where people walk`, shape: 'Polygon', fields: [] },
  aisle: {
    label: t`Middle of a way`,
    shape: 'LineString',
    fields: [{ field: 'width_m', label: t`Width`, needed: true }, height(false)],
  },
  door: { label: t`Door, across its opening`, shape: 'LineString', fields: [height(true)] },
  ramp: { label: t`Ramp`, shape: 'Polygon', fields: slope },
  leveller: { label: t`Dock leveller`, shape: 'Polygon', fields: slope },
  trailer: { label: t`Trailer`, shape: 'Polygon', fields: [{ field: 'ground' }] },
  rack: { label: t`Rack`, shape: 'Polygon', fields: [height(false)] },
  ceiling: { label: t`Ceiling`, shape: 'Polygon', fields: [height(true)] },
}

/** Of soil and of what stands beside an edge, as they are said. */
export const soilWords: Record<NonNullable<Feature['soil']>, string> = { firm: t`Firm`, loose: t`Loose`, wet: t`Wet` }
export const structureWords: Record<NonNullable<Feature['structure']>, string> = {
  none: t`Nothing`,
  wall: t`A wall`,
  void: t`A void`,
  culvert: t`A culvert`,
}

const fresh = (taken: readonly { id: string }[], kind: string): string => {
  for (let n = 1; ; n++) {
    const id = `${kind}-${n}`
    if (taken.every((x) => x.id !== id)) return id
  }
}

/** A new thing of a kind, a few metres large, where it was put; what it has to say besides is asked for. */
export function newFeature(
  place: Pick<Place, 'features' | 'defaultGround'>,
  kind: Kind,
  [x, y]: readonly [number, number],
): Feature {
  const { shape, fields } = kinds[kind]
  const asked = fields.map((f) => f.field)
  const points: [number, number][] =
    shape === 'Polygon'
      ? [
          [x - 2, y - 1],
          [x + 2, y - 1],
          [x + 2, y + 1],
          [x - 2, y + 1],
        ]
      : [
          [x - 3, y],
          [x + 3, y],
        ]
  return {
    id: fresh(place.features, kind),
    label: kinds[kind].label,
    kind,
    geometry: { type: shape, points },
    ...(asked.includes('axis') && {
      axis: [
        [x - 2, y],
        [x + 2, y],
      ] as [[number, number], [number, number]],
    }),
    ...(asked.includes('ground') && { ground: place.defaultGround }),
  }
}

export const newStand = (place: Pick<Place, 'positions'>, [x_m, y_m]: readonly [number, number]): Place['positions'][number] => ({
  id: fresh(place.positions, 'stand'),
  label: t`New stand`,
  x_m,
  y_m,
  heading_deg: 0,
})

/** What was added, taken off or changed, by its name. */
export interface Difference {
  id: string
  label: string
  how: 'added' | 'gone' | 'changed'
}
export function differences(
  before: readonly { id: string; label: string }[],
  after: readonly { id: string; label: string }[],
): Difference[] {
  const was = new Map(before.map((x) => [x.id, x]))
  const is = new Map(after.map((x) => [x.id, x]))
  return [
    ...after.flatMap((x): Difference[] => {
      const old = was.get(x.id)
      if (!old) return [{ id: x.id, label: x.label, how: 'added' }]
      return sameThing(old, x) ? [] : [{ id: x.id, label: x.label, how: 'changed' }]
    }),
    ...before.filter((x) => !is.has(x.id)).map((x): Difference => ({ id: x.id, label: x.label, how: 'gone' })),
  ]
}
/**
 * What was changed between two lists, done to a third: things added, changed or taken off by one person over what another has drawn since. Of a thing
 * that both have changed, the later hand's is kept.
 */
export function carriedOver<T extends { id: string }>(before: readonly T[], after: readonly T[], now: readonly T[]): T[] {
  const was = new Map(before.map((x) => [x.id, x]))
  const mine = new Map(after.map((x) => [x.id, x]))
  const kept = now.filter((x) => mine.has(x.id) || !was.has(x.id))
  return [
    ...kept.map((x) => {
      const own = mine.get(x.id)
      return own && !sameThing(was.get(x.id), own) ? own : x
    }),
    ...after.filter((x) => !now.some((n) => n.id === x.id) && !(was.has(x.id) && sameThing(was.get(x.id), x))),
  ]
}

export const sameThing = (a: unknown, b: unknown) => JSON.stringify(inFieldOrder(a)) === JSON.stringify(inFieldOrder(b))
