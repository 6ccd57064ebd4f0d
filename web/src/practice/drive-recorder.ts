import {
  type DriveNotes,
  type DriveRun,
  type DriverActs,
  driveOn,
  driveVersion,
  drivingMotions,
  frees,
  LeverNotes,
  type Machine,
  type TruckDrive,
} from '@geolabe/core'
import { Pace } from './pace'

const none: DriverActs = { travel: 0, steer: 0, forks: 0, tilt: 0, horn: false, look: false, stop: false }

/** A drive under way: wheel, pedal and levers go in, time passes, and what was done is noted so that it can be driven again anywhere. */
export class DriveRecorder {
  readonly drive: TruckDrive
  private readonly levers = new LeverNotes(drivingMotions.length)
  private readonly notes: DriveNotes = []
  private readonly held = { horn: false, look: false, stop: false }
  private wanted = { horn: false, look: false }
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

  /** The horn, or eyes back, as long as it is held. */
  hold(what: 'horn' | 'look', on: boolean) {
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
    const [travel = 0, steer = 0, forks = 0, tilt = 0] = this.levers.note(ticks, said)
    // A stop holds until the pedal is let go of.
    const moved = this.levers.inputs.slice(before).some(([, axis]) => axis === 0)
    if (moved && frees(this.last.travel, travel)) this.held.stop = false
    for (const what of ['horn', 'look'] as const) this.note(what, this.wanted[what])
    if (this.stopAsked) this.note('stop', true)
    this.stopAsked = false
    this.last = { travel, steer, forks, tilt, ...this.held }
    this.drive.tick(this.last)
  }

  private note(what: 'horn' | 'look' | 'stop', on: boolean) {
    if (this.held[what] === on) return
    this.held[what] = on
    this.notes.push([this.drive.ticks, what, on])
  }

  run(id: string): DriveRun {
    return {
      format: 'geolabe.practice/1',
      id,
      game: 'drive',
      version: driveVersion,
      machine: { id: this.machine.id, revision: this.machine.revision },
      seed: this.how.seed,
      level: this.how.level,
      inputs: this.levers.inputs,
      notes: this.notes,
    }
  }
}
