import { z } from 'zod'
import { rad } from '../../physics'
import { groundKind, matKind } from '../../place/place'
import { finite, notNegative, positive } from '../../quantity/measured'
import { Refusal } from '../../refusal'
import type { Support } from '../../statics/footprint'
import type { BearingPoint } from './bearing-point'

const footPosition = z.strictObject({ x_m: finite, y_m: finite })

/** A beam that slides out: where its foot stands at each stop that it has. */
const beam = z.strictObject({
  retracted: footPosition.optional(),
  intermediate: footPosition.optional(),
  fullyExtended: footPosition,
})

/** An outrigger that swings out on a hinge: angles are from the machine's length, outwards; the widest stop last. */
const swing = z.strictObject({
  hinge: footPosition,
  stops: z.array(z.strictObject({ section_m: positive, angle_deg: finite.min(0).max(90) })).min(1),
})

/** One outrigger: where its foot can stand, its jack's travel, its strength, its pad. It slides, swings, or is let down where it is. */
export const outrigger = z
  .strictObject({
    id: z.string().min(1),
    label: z.string().min(1),
    positions: beam.optional(),
    swing: swing.optional(),
    drop: footPosition.optional(),
    /** Jack's ends; the foot leaves the ground below min. */
    stroke: z.strictObject({ min_m: notNegative, max_m: positive }),
    /** The greatest load the leg's own structure may carry. */
    capacity_N: positive,
    float: z.strictObject({ length_m: positive, width_m: positive }),
  })
  .refine((o) => [o.positions, o.swing, o.drop].filter((x) => x !== undefined).length === 1, {
    message: 'Give one of positions, swing and drop.',
  })
export type Outrigger = z.infer<typeof outrigger>

/** One place where an outrigger's foot can stand. */
export interface OutriggerStop {
  id: string
  /** How far out that is, in a word or two. */
  label: string
  x_m: number
  y_m: number
}

/** What beams call their stops, the furthest out last. */
const beamStops = [
  ['retracted', 'In'],
  ['intermediate', 'Middle'],
  ['fullyExtended', 'Full'],
] as const

const round = (m: number) => Math.round(m * 1e9) / 1e9

function stopsFrom({ positions, swing, drop }: Outrigger): OutriggerStop[] {
  if (swing) {
    const { hinge, stops } = swing
    return stops.map(({ section_m, angle_deg }) => ({
      id: `${angle_deg}-${section_m}`,
      label: `${angle_deg}°, ${section_m} m`,
      x_m: round(hinge.x_m + Math.sign(hinge.x_m) * section_m * Math.cos(angle_deg * rad)),
      y_m: round(hinge.y_m + Math.sign(hinge.y_m) * section_m * Math.sin(angle_deg * rad)),
    }))
  }
  if (drop) return [{ id: 'down', label: 'Down', ...drop }]
  return beamStops.flatMap(([id, label]) => {
    const at = positions?.[id]
    return at ? [{ id, label, ...at }] : []
  })
}

const known = new WeakMap<Outrigger, readonly OutriggerStop[]>()

/** Where an outrigger's foot can stand, metres in the machine's frame; the furthest out last. */
export function stopsOf(o: Outrigger): readonly OutriggerStop[] {
  const stops = known.get(o) ?? stopsFrom(o)
  known.set(o, stops)
  return stops
}

/** @throws Refusal `unknown-stop` naming those there are */
export function stopNamed(o: Outrigger, id: string): OutriggerStop {
  const stop = stopsOf(o).find((s) => s.id === id)
  if (stop) return stop
  const there = stopsOf(o)
    .map((s) => s.id)
    .join(', ')
  throw new Refusal('unknown-stop', `The ${o.label} has no stop “${id}”; it has ${there}.`, 'setup.standing.outriggers')
}

/** Stops further out than this one, the nearest first. */
export function furtherOut(o: Outrigger, id: string): readonly OutriggerStop[] {
  const stops = stopsOf(o)
  return stops.slice(stops.findIndex((s) => s.id === id) + 1)
}

/** How one outrigger is set: how far out, how far its jack is run out, what it stands on. */
const outriggerSetting = z.strictObject({
  id: z.string().min(1),
  at: z.strictObject({ stop: z.string().min(1) }),
  /** Null: the outrigger's own float stands on the ground. */
  mat: matKind.nullable(),
  /** Null: nobody has said what it stands on; its ground is then not proven. */
  ground: groundKind.nullable(),
  stroke_m: notNegative,
})
export type OutriggerSetting = z.infer<typeof outriggerSetting>

/** Standing on outriggers, as a set-up plan has it. */
export const onOutriggers = z.strictObject({
  on: z.literal('outriggers'),
  /** Which of the machine's ways of standing; left out where it has only one. */
  state: z.string().min(1).optional(),
  outriggers: z.array(outriggerSetting),
})

/** Where the feet of outriggers stand. @throws Refusal `missing-leg` when one has no setting, `unknown-leg`, `unknown-stop` */
export function feetOf(outriggers: readonly Outrigger[], settings: readonly { id: string; at: { stop: string } }[]): Support[] {
  const other = settings.find((s) => !outriggers.some((o) => o.id === s.id))
  if (other) throw new Refusal('unknown-leg', `There is no outrigger “${other.id}” on this machine.`, 'setup.standing.outriggers')
  return outriggers.map((o) => {
    const chosen = settings.find((s) => s.id === o.id)
    if (!chosen) throw new Refusal('missing-leg', `Say how far ${o.label} is out.`, 'setup.standing.outriggers')
    const { x_m, y_m } = stopNamed(o, chosen.at.stop)
    return { id: o.id, x_m, y_m }
  })
}

/** An outrigger as a bearing point. */
export const pointOf = ({ id, label, capacity_N, float }: Outrigger): BearingPoint => ({ id, label, capacity_N, float })
