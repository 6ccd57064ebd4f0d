import {
  type Course,
  Drill,
  headOf,
  keyEvery_ticks,
  LeverNotes,
  type LoadRun,
  type LoadSet,
  type Machine,
  practiceVersion,
  type Rig,
  tick_s,
} from '@geolabe/core'
import { Pace } from './pace'
import type { How } from './use-rounds'

/** A run under way: levers go in, time passes, and what was done is noted so that it can be played again anywhere. */
export class Recorder {
  readonly drill: Drill
  private readonly notes: LeverNotes
  private readonly stops: number[] = []
  private readonly keys: [number, number[]][] = []
  private ticks = 0
  private readonly pace = new Pace()
  private stopAsked = false

  constructor(
    private readonly machine: Pick<Machine, 'id' | 'revision'>,
    readonly rig: Rig,
    course: Course,
    private readonly how: How & { set?: LoadSet | undefined },
  ) {
    this.drill = new Drill(rig, course)
    this.notes = new LeverNotes(rig.axes.length)
  }

  get time_s() {
    return this.ticks * tick_s
  }

  stop() {
    this.stopAsked = true
  }

  /** So much time with the levers held so, −1 to 1 an axis. False where the device was too far behind: time stood still meanwhile. */
  pass(seconds: number, held: readonly number[]): boolean {
    return this.pace.pass(
      seconds,
      () => this.drill.over,
      () => this.tick(held),
    )
  }

  private tick(held: readonly number[]) {
    const levers = this.notes.note(this.ticks, held)
    if (this.stopAsked) this.stops.push(this.ticks)
    this.drill.step(levers, this.stopAsked)
    this.stopAsked = false
    if (this.ticks > 0 && this.ticks % keyEvery_ticks === 0) this.keys.push([this.ticks, this.drill.key()])
    this.ticks += 1
  }

  /** The run so far, to be kept and played again. */
  run(id: string): LoadRun {
    return {
      ...headOf(this.machine, this.how, id),
      game: 'load',
      version: practiceVersion,
      inputs: this.notes.inputs,
      stops: this.stops,
      ticks: Math.max(1, this.ticks),
      keys: this.keys,
      ...(this.how.set ? { settings: this.how.set } : {}),
    }
  }
}
