import { z } from 'zod'
import { motionNames } from '../parts/drives'
import { drivingMotions } from '../parts/truck'
import { nameId } from '../quantity/name-id'

const text = z.string().trim().min(1)

/** Where controls are handled: a cab, a column beside the bed, a box that is carried. */
const controlPlace = z.strictObject({
  id: nameId,
  label: text,
  /** On the plan of the machine, metres forward and left; left out: it is carried, or hangs. */
  at: z.tuple([z.number(), z.number()]).optional(),
})
export type ControlPlace = z.infer<typeof controlPlace>

/** What a control does when it is let go. */
const returning = z.enum(['springs', 'stays', 'latches'])
type Returning = z.infer<typeof returning>
export const returningWords: Record<Returning, string> = {
  springs: 'springs back when let go',
  stays: 'stays where it is put',
  latches: 'stays until it is freed by hand',
}

/** A lever, pedal, switch, lamp or setting, by the name that it has on the machine. */
const device = z.strictObject({
  id: nameId,
  label: text,
  kind: z.enum(['lever', 'pedal', 'button', 'switch', 'wheel', 'valve', 'lamp', 'setting', 'hand']),
  place: nameId,
  /** Which it is of its place, from the left. */
  stands: z.int().min(1).max(40),
  /** Left out: nothing of it is moved, as with a lamp. */
  returns: returning.optional(),
  /** Who may change it; left out: whoever drives. */
  setBy: z
    .array(z.enum(['person-in-charge', 'fitter']))
    .min(1)
    .optional(),
})
export type Device = z.infer<typeof device>

/** The ways that a device is moved. */
export const controlWay = z.enum([
  'forward',
  'back',
  'left',
  'right',
  'up',
  'down',
  'pressed',
  'pulled',
  'turned-right',
  'turned-left',
])
export type ControlWay = z.infer<typeof controlWay>
export const wayWords: Record<ControlWay, string> = {
  forward: 'forward',
  back: 'back',
  left: 'left',
  right: 'right',
  up: 'up',
  down: 'down',
  pressed: 'pressed',
  pulled: 'pulled',
  'turned-right': 'turned right',
  'turned-left': 'turned left',
}
/** The other way of the same axis. */
const otherWay: Record<ControlWay, ControlWay> = {
  forward: 'back',
  back: 'forward',
  left: 'right',
  right: 'left',
  up: 'down',
  down: 'up',
  pressed: 'pulled',
  pulled: 'pressed',
  'turned-right': 'turned-left',
  'turned-left': 'turned-right',
}

/** One thing that a machine does, and what makes it do so. */
const control = z.strictObject({
  /** In the same words on every machine: “Slew left”. */
  does: text,
  device: nameId,
  way: controlWay.optional(),
  /** What has to be so besides: “diverter to boom”. */
  with: text.optional(),
  /**
   * Which motion of `drives`, or of a truck’s `driving`, it moves, and which way that is: slew left, boom up, out, hoist up are positive, and so are
   * forward, steering left, forks up, tilting back.
   */
  moves: z
    .strictObject({ motion: z.enum([...motionNames, ...drivingMotions]), sense: z.union([z.literal(1), z.literal(-1)]) })
    .optional(),
})
export type Control = z.infer<typeof control>

const firstTwice = (all: readonly string[]) => all.findIndex((x, i) => all.indexOf(x) !== i)

/** A machine's map of controls: where they are, what is there, and what each does. */
export const controlMap = z
  .strictObject({ places: z.array(controlPlace), devices: z.array(device), does: z.array(control) })
  .superRefine((map, ctx) => {
    const issue = (path: (string | number)[], message: string) => ctx.addIssue({ code: 'custom', path, message })
    const places = new Set(map.places.map((p) => p.id))
    const devices = new Set(map.devices.map((d) => d.id))
    const seen: [path: string, field: string, of: string[]][] = [
      ['places', 'id', map.places.map((p) => p.id)],
      ['devices', 'id', map.devices.map((d) => d.id)],
      ['devices', 'stands', map.devices.map((d) => `${d.place} ${d.stands}`)],
      ['does', 'does', map.does.map((c) => c.does)],
      ['does', 'way', map.does.map((c) => `${c.device} ${c.way ?? ''} ${c.with ?? ''}`)],
    ]
    for (const [path, field, of] of seen) {
      const at = firstTwice(of)
      if (at >= 0) issue([path, at, field], `The same stands twice: “${of[at]}”.`)
    }
    for (const [i, d] of map.devices.entries())
      if (!places.has(d.place)) issue(['devices', i, 'place'], `There is no place “${d.place}” among the controls.`)
    for (const [i, c] of map.does.entries())
      if (!devices.has(c.device)) issue(['does', i, 'device'], `There is no device “${c.device}” among the controls.`)
    const used = new Set(map.does.map((c) => c.device))
    for (const [i, d] of map.devices.entries()) if (!used.has(d.id)) issue(['devices', i], `Nothing says what “${d.label}” does.`)
  })
export type ControlMap = z.infer<typeof controlMap>
export const noControls: ControlMap = { places: [], devices: [], does: [] }

/** Every stop on a machine: what it kills, what must be reset or linked again. */
export const stopControl = z.strictObject({ label: z.string().min(1), kills: z.string().min(1), reset: z.string().min(1) })
export type StopControl = z.infer<typeof stopControl>

/** What a control is done by, in words. */
export interface DoneBy {
  device: string
  way?: ControlWay
  with?: string
}

export interface ShownControl extends Omit<Control, 'device'> {
  device: Device
  /** How the same thing was done on the machine last driven; null: there, it was the same or not there. */
  was: DoneBy | null
  /** What does it here did the very opposite there: the hand that knows the other machine does harm. */
  reversed: boolean
  /** Not on the machine last driven at all. */
  fresh: boolean
}

const byOf = (device: Device, c: Control): DoneBy => ({
  device: device.label,
  ...(c.way && { way: c.way }),
  ...(c.with && { with: c.with }),
})
/** Which of its like it is from the left, of how many: the left of two sticks is the left of two levers, whatever they are called. */
const rankOf = (map: ControlMap, d: Device): string => {
  const like = map.devices.filter((o) => o.place === d.place && o.kind === d.kind)
  return `${d.kind} ${like.filter((o) => o.stands < d.stands).length} of ${like.length}`
}

/** This machine's controls in their order, with what differs from those last used. Without any, nothing is marked. */
export function controlsAgainst(own: ControlMap, last: ControlMap | null): ShownControl[] {
  return own.does.flatMap((c) => {
    const device = own.devices.find((d) => d.id === c.device)
    if (!device) return []
    const there = last?.does.find((l) => l.does === c.does)
    const from = last?.devices.find((d) => d.id === there?.device)
    if (!last || !there || !from) return { ...c, device, was: null, reversed: false, fresh: last !== null }
    const sameHand = from.label === device.label || rankOf(last, from) === rankOf(own, device)
    const differs = !sameHand || there.way !== c.way || there.with !== c.with
    return {
      ...c,
      device,
      was: differs ? byOf(from, there) : null,
      reversed: c.way !== undefined && there.way === otherWay[c.way],
      fresh: false,
    }
  })
}
