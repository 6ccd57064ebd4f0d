import {
  givenAgain,
  headOf,
  isCalling,
  knownBy,
  LeverNotes,
  type Machine,
  type Prompt,
  type Rig,
  type SignalRun,
  signalCourse,
  signalVersion,
  tick_s,
} from '@geolabe/core'
import { Pace } from './pace'

/** Signals under way: levers go in, time passes, what was done is noted. */
export class SignalRecorder {
  private readonly notes: LeverNotes
  private readonly stops: number[] = []
  private ticks = 0
  private readonly pace = new Pace()
  private stopAsked = false
  /** What was guessed has been added to it. */
  private whole = false
  course: readonly Prompt[]

  constructor(
    private readonly machine: Pick<Machine, 'id' | 'revision'>,
    private readonly rig: Rig,
    private readonly how: { seed: number; level: number },
    private readonly latency_s: number,
  ) {
    this.course = signalCourse(
      how.seed,
      how.level,
      rig.axes.map((a) => a.motion),
    )
    this.notes = new LeverNotes(rig.axes.length)
  }

  get time_s() {
    return this.ticks * tick_s
  }

  get over() {
    return this.ticks >= (this.course.at(-1)?.until ?? 0)
  }

  /** Which prompt is seen now. */
  get at() {
    return Math.max(
      0,
      this.course.findIndex((p) => this.ticks < p.until),
    )
  }

  /** Whether what is said on the radio is to be heard now. */
  get calling(): boolean {
    const p = this.course[this.at]
    return p !== undefined && isCalling(p, this.ticks)
  }

  stop() {
    this.stopAsked = true
  }

  /** So much time with the levers held so. False where the device was too far behind: time stood still meanwhile. */
  pass(seconds: number, held: readonly number[]): boolean {
    return this.pace.pass(
      seconds,
      () => this.over,
      () => this.tick(held),
    )
  }

  /** What was answered sooner than anybody sees it is given again, once all has been. */
  private grow() {
    const motions = this.rig.axes.map((a) => a.motion)
    const { inputs } = this.notes
    this.course = givenAgain(this.course, motions, { inputs, stops: this.stops, latency_s: this.latency_s }, this.how.seed)
    this.whole = true
  }

  private tick(held: readonly number[]) {
    if (!this.whole && this.ticks >= knownBy(this.course)) this.grow()
    this.notes.note(this.ticks, held)
    if (this.stopAsked) this.stops.push(this.ticks)
    this.stopAsked = false
    this.ticks += 1
  }

  run(id: string): SignalRun {
    return {
      ...headOf(this.machine, this.how, id),
      game: 'signal',
      version: signalVersion,
      inputs: this.notes.inputs,
      stops: this.stops,
      latency_s: this.latency_s,
    }
  }
}
