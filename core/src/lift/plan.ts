import { z } from 'zod'
import { selected } from '../parts/display'
import { hoistStep } from '../parts/hoist-step'
import { marksRead, traverseStep } from '../parts/runway'
import { poseStep } from '../parts/stability/pose'
import { slewStep } from '../parts/stability/slew'
import { standRole } from '../parts/stand-role'
import { onBase } from '../parts/supports/base'
import { onFrame } from '../parts/supports/frame'
import { onOutriggers } from '../parts/supports/outriggers'
import { onRunway } from '../parts/supports/runway'
import { onTowers } from '../parts/supports/towers'
import { onTracks } from '../parts/supports/tracks'
import { onWheels } from '../parts/supports/wheels'
import { towStep } from '../parts/tow'
import { driveStep, mastStep, reachStep } from '../parts/truck-steps'
import { type LoadSize, massSource } from '../place/place'
import { moment } from '../quantity/date'
import { finite, measured, measuredNotNegative, measuredPositive, notNegative, positive } from '../quantity/measured'
import { belly, slings } from '../rigging/slings'

/** What a machine stands on: one setting for each kind of support, each owned by its part. */
export const standing = z.discriminatedUnion('on', [onOutriggers, onWheels, onRunway, onTowers, onFrame, onBase, onTracks])
export type Standing = z.infer<typeof standing>

/** What is fitted to it. Which of these it must say is read from the machine's parts. */
const fitted = z.strictObject({
  counterweight: z.string().min(1).optional(),
  /** Parts of line that the hook is reeved in. */
  partsOfLine: z.int().min(1).optional(),
  /** A lattice boom, as it was built; left out: it is drawn out as it is wanted, or nobody said. */
  boom_m: positive.optional(),
  /** A truck's tool; left out: its forks. */
  attachment: z.string().min(1).optional(),
  /** As its own plate says; null: not read. */
  battery_kg: positive.nullable().optional(),
  slabs: z.int().min(0).optional(),
  /** How far the counterweight is moved out, measured, at a listed step. */
  extension_m: notNegative.optional(),
  /** What is marked on hoist, trolley, beam and hook, as it was read there. */
  marks: marksRead.optional(),
  /** As the machine's own display shows it, read there and not taken from the above. */
  selected: selected.optional(),
})

/** How the machine stands: everything that was chosen or measured before a load is thought of. */
export const setupPlan = z.strictObject({
  format: z.literal('geolabe.setup/2'),
  place: z.string().min(1),
  position: z.strictObject({ x_m: finite, y_m: finite, heading_deg: finite }),
  standing,
  fitted,
  level: z.strictObject({
    pitch_deg: measured.nullable(),
    roll_deg: measured.nullable(),
    /** The bubble itself was turned end for end and compared. */
    levelVerified: z.boolean(),
  }),
  /** What was looked at and confirmed before a load: by whom and when. */
  confirmed: z
    .array(z.strictObject({ id: z.string().min(1), by: z.string(), at: moment }))
    .max(50)
    .default([]),
})
export type SetupPlan = z.infer<typeof setupPlan>

/** The load and whatever hangs with it. */
export const hung = z.strictObject({
  load: z.strictObject({
    name: z.string(),
    mass_kg: measuredPositive.nullable(),
    /** The least that it may weigh, where it loses water, mud or ice on the way. */
    lightest_kg: measuredPositive.optional(),
    /**
     * Its centre of gravity. On forks: from their face ahead, to the left, and above them. Between towers or in slings: from their middle,
     * and above the line of its lift points.
     */
    cg: z.strictObject({ x_m: measured, y_m: measured, z_m: measured }).optional(),
    /** Null: nobody knows it; then there is no lift. */
    massSource: massSource.nullable(),
    windArea_m2: measuredNotNegative.nullable(),
    dragCoefficient: positive,
    /** Loose tiers that lean on a truck's load guard, each by its height, from below; left out: wrapped, or one piece. */
    tiers_m: z.array(measuredPositive).min(1).max(20, 'At most 20 tiers.').optional(),
    /** As it hangs: length and width in plan, height; null: not measured. */
    size: z
      .strictObject({ length_m: positive.nullable(), width_m: positive.nullable(), height_m: positive.nullable() })
      .optional(),
  }),
  rigging: z.array(
    z.strictObject({
      name: z.string().min(1),
      mass_kg: measuredNotNegative,
      on: z.enum(['hook', 'boom']),
      at_m: notNegative.optional(),
    }),
  ),
  /** Who rides up with it, each with what they wear and carry. */
  persons: z
    .array(z.strictObject({ mass_kg: measuredPositive }))
    .max(4)
    .optional(),
  /** What a clamp takes hold of; null: not looked at. */
  faces: z.enum(['dry', 'wet']).nullable().optional(),
  /** From the hook down to the top of the load. */
  rigging_height_m: measuredNotNegative.optional(),
  slings: slings.optional(),
  /** A hull in slings under its keel. */
  belly: belly.optional(),
})
export type Hung = z.infer<typeof hung>

/** The size of a load; null while a side of it is not measured. */
export function sizeOf({ size }: Hung['load']): LoadSize | null {
  if (!size) return null
  const { length_m, width_m, height_m } = size
  return length_m === null || width_m === null || height_m === null ? null : { length_m, width_m, height_m }
}

/** One motion of a lift: one kind for each part that makes it. */
const step = z.discriminatedUnion('do', [slewStep, poseStep, mastStep, reachStep, driveStep, towStep, hoistStep, traverseStep])
export type Step = z.infer<typeof step>

/** Who sees the load, and tells the operator. */
const crew = z.strictObject({
  /** Whoever signals, by name; null: nobody. */
  signaller: z.string().trim().min(1, 'Say who, by name.').nullable(),
  sightBy: z.enum(['operator', 'signaller', 'camera']),
  /** Signals were agreed before the lift. */
  signals: z.literal('agreed').nullable(),
  /** Where an operator with a remote stands, one place after another; from the slew centre, x ahead, y to the left. */
  posts: z
    .array(z.strictObject({ x_m: finite, y_m: finite }))
    .max(6, 'At most six places to stand.')
    .optional(),
  /** How a signaller tells: by hand is meant where it is left out, and has to be seen. */
  told: z.enum(['hand', 'radio']).optional(),
  /** Where everybody else stands while the load is up; from the slew centre, x ahead, y to the left. */
  stands: z
    .array(z.strictObject({ role: standRole, x_m: finite, y_m: finite }))
    .max(8, 'At most eight people.')
    .optional(),
})
export type Crew = z.infer<typeof crew>

export const liftPlan = z.strictObject({
  format: z.literal('geolabe.lift/2'),
  hung,
  /** What is done, in this order. */
  steps: z.array(step).min(1, 'Give at least one step.').max(12, 'At most 12 steps; prove the rest as another lift.'),
  /** The table the machine's own computer is set to; omitted: the best that covers this set-up is proposed. */
  configuration: z.string().optional(),
  crew: crew.optional(),
  /** Places where people walk that are closed while the load is up. */
  closes: z.array(z.string().min(1)).max(50).optional(),
})
export type LiftPlan = z.infer<typeof liftPlan>

/** How far the boom is drawn out with the load on before a step, metres; nothing: it is not. */
export function drawnOut_m(steps: LiftPlan['steps'], i: number): number {
  const [before, now] = [steps[i - 1], steps[i]]
  if (!now?.laden) return 0
  if (now.do === 'pose') {
    const { waypoints } = now
    return waypoints.reduce((out, p, k) => out + Math.max(0, p.extension_m - (waypoints[k - 1] ?? p).extension_m), 0)
  }
  return before?.do === 'slew' && now.do === 'slew' && before.laden ? Math.max(0, now.boom_m - before.boom_m) : 0
}

export const conditions = z.strictObject({
  /** Gust at the boom tip, m/s; null: not read. */
  wind_mps: measuredNotNegative.nullable(),
  /** Under a roof with its doors shut: no wind. */
  roofShut: z.boolean().optional(),
})
export type Conditions = z.infer<typeof conditions>
