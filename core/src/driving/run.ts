import { z } from 'zod'
import type { Machine } from '../machine/machine'
import { drivingMotions } from '../parts/truck'
import { longest_ticks } from '../practice/drill'
import { checkInputs, leverInputs, leversFrom } from '../practice/inputs'
import { checkHead, runHead } from '../practice/run-head'
import { type Lesson, lessonsTogether } from '../practice/weak-point'
import { Refusal } from '../refusal'
import { driveCourse, isTall } from './course'
import { type DriverActs, TruckDrive } from './drive'
import { drivenTruck, drivingOf } from './driven-truck'
import { type DriveMarks, driveMarks } from './marks'
import type { DriveRule } from './rules'

export const driveVersion = 1

/** What a driver has on besides levers: the horn and eyes back as long as they are held, the parking brake, the key taken out. */
export const driverSwitches = ['horn', 'look', 'brake', 'key'] as const
export type DriverSwitch = (typeof driverSwitches)[number]
export const allOff: Readonly<Record<DriverSwitch, boolean>> = { horn: false, look: false, brake: false, key: false }

/** What is no lever, from the tick it is on until it is off again; a stop, once. */
const driveNotes = z.array(z.tuple([z.int().min(0), z.enum([...driverSwitches, 'stop']), z.boolean()])).max(2000)
export type DriveNotes = z.infer<typeof driveNotes>

/** A load driven along a course: what was done with which lever at which tick, in the order travel, steer, forks, tilt, shift. */
export const driveRun = z.strictObject({
  ...runHead,
  game: z.literal('drive'),
  inputs: leverInputs,
  notes: driveNotes,
})
export type DriveRun = z.infer<typeof driveRun>

/** @throws Refusal `inputs-order` where notes do not go forward in time */
function checkNotes(notes: DriveNotes): void {
  let last = 0
  for (const [i, [tick]] of notes.entries()) {
    if (tick < last || tick >= longest_ticks)
      throw new Refusal(
        'inputs-order',
        `What was noted goes forward in time, within the run; number ${i + 1} does not.`,
        `notes.${i}`,
      )
    last = tick
  }
}

/** A course for a machine, its truck made ready. @throws Refusal `no-drives` */
export function driveOn(m: Machine, how: { seed: number; level: number }): TruckDrive {
  const truck = drivenTruck(m, isTall(drivingOf(m).driving, how.seed, how.level))
  return new TruckDrive(truck, driveCourse(truck, how.seed, how.level))
}

/** Ticks at which the pedal comes to its middle, or leaves it: a stop holds until then. */
function pedalFree(inputs: DriveRun['inputs']): ReadonlySet<number> {
  const pedal = inputs.filter(([, axis]) => axis === 0)
  return new Set(pedal.filter(([, , value], i) => frees(pedal[i - 1]?.[2] ?? 0, value)).map(([tick]) => tick))
}

/** Whether a pedal moved from one figure to another lets go of a stop. */
export const frees = (before: number, now: number): boolean => before === 0 || now === 0

/** What is done at each tick, from what was noted; a stop holds until the pedal is let go of. */
export function actsFrom(run: Pick<DriveRun, 'inputs' | 'notes'>): (tick: number) => DriverActs {
  const levers = leversFrom(run.inputs, drivingMotions.length)
  const free = pedalFree(run.inputs)
  let next = 0
  const held = { ...allOff, stop: false }
  return (tick) => {
    if (free.has(tick)) held.stop = false
    for (let note = run.notes[next]; note && note[0] <= tick; note = run.notes[++next]) held[note[1]] = note[2]
    const [travel = 0, steer = 0, forks = 0, tilt = 0, shift = 0] = levers.at(tick)
    return { travel, steer, forks, tilt, shift, ...held }
  }
}

/**
 * A run driven again from what was done, to its end or to the last of what was noted and a little on.
 *
 * @throws Refusal `version-unknown`, `machine-changed`, `inputs-order`, `axis-unknown`, `no-drives`
 */
export function playDrive(m: Machine, run: DriveRun): TruckDrive {
  checkHead(m, run, driveVersion)
  // Side shift is the last of them: where there is none nothing moves it.
  checkInputs(run.inputs, drivingMotions.length - (m.truck?.driving?.shift ? 0 : 1), longest_ticks)
  checkNotes(run.notes)
  const drive = driveOn(m, run)
  const acts = actsFrom(run)
  while (!drive.over && drive.ticks < longest_ticks) drive.tick(acts(drive.ticks))
  return drive
}

export const markDrive = (m: Machine, run: DriveRun): DriveMarks => driveMarks(playDrive(m, run))

/** What can be weak in driving: each rule, and touching something. */
export type DrivePoint = DriveRule | 'touched'

/** What a drive showed: a rule that came up and was kept is right once the load was set down; what was not kept is wrong. */
export function driveLessons(r: Pick<DriveMarks, 'rules' | 'stopped' | 'off_m'>): Lesson<DrivePoint>[] {
  const done = r.off_m !== null
  const lesson = (point: DrivePoint, right: boolean): Lesson<DrivePoint> => ({ point, right, sure: null })
  const ended: DrivePoint | null =
    r.stopped === 'touched' ? 'touched' : r.stopped === 'tipped' ? 'edge-room' : r.stopped === 'struck' ? 'people' : null
  return lessonsTogether([
    ...r.rules.flatMap(({ rule, mark }) => (mark === 'kept' ? (done ? [lesson(rule, true)] : []) : [lesson(rule, false)])),
    ...(ended ? [lesson(ended, false)] : []),
    ...(done ? [lesson('touched', true)] : []),
  ])
}
