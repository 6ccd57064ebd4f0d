import {
  allOff,
  type DriveNotes,
  type DriveRun,
  type DriverActs,
  type DriverSwitch,
  driveOn,
  driverSwitches,
  driveVersion,
  drivingMotions,
  frees,
  headOf,
  LeverNotes,
  type Machine,
  type TruckDrive,
} from '@geolabe/core'
import { Pace } from './pace'

const none: DriverActs = { travel: 0, steer: 0, forks: 0, tilt: 0, shift: 0, ...allOff, stop: false }

/** A drive under way: wheel, pedal and levers go in, time passes, and what was done is noted so that it can be driven again anywhere. */
export class DriveRecorder {
  readonly drive: TruckDrive
  private readonly levers = new LeverNotes(drivingMotions.length)
  private readonly notes: DriveNotes = []
  private readonly held = { ...allOff, stop: false }
  private readonly wanted = { ...allOff }
  private stopAsked = false
  private readonly pace = new Pace()
  /** What was done at the last tick. */
  last: DriverActs = none

  constructor(
    private readonly machine: Machine,
    private readonly how: { seed: number; level: number },
  ) {
    this.drive = driveOn(machine, how)
  }

  stop() {
    this.stopAsked = true
  }

  /** On, or off again: what is held, and what stays as it was put. */
  hold(what: DriverSwitch, on: boolean) {
    this.wanted[what] = on
  }

  /** So much time with the levers held so. False where the device was too far behind: time stood still meanwhile. */
  pass(seconds: number, said: readonly number[]): boolean {
    return this.pace.pass(
      seconds,
      () => this.drive.over,
      () => this.tick(said),
    )
  }

  private tick(said: readonly number[]) {
    const { ticks } = this.drive
    const before = this.levers.inputs.length
    const [travel = 0, steer = 0, forks = 0, tilt = 0, shift = 0] = this.levers.note(ticks, said)
    // A stop holds until the pedal is let go of.
    const moved = this.levers.inputs.slice(before).some(([, axis]) => axis === 0)
    if (moved && frees(this.last.travel, travel)) this.held.stop = false
    for (const what of driverSwitches) this.note(what, this.wanted[what])
    if (this.stopAsked) this.note('stop', true)
    this.stopAsked = false
    this.last = { travel, steer, forks, tilt, shift, ...this.held }
    this.drive.tick(this.last)
  }

  private note(what: DriverSwitch | 'stop', on: boolean) {
    if (this.held[what] === on) return
    this.held[what] = on
    this.notes.push([this.drive.ticks, what, on])
  }

  run(id: string): DriveRun {
    return {
      ...headOf(this.machine, this.how, id),
      game: 'drive',
      version: driveVersion,
      inputs: this.levers.inputs,
      notes: this.notes,
    }
  }
}
