import {
  LeverNotes,
  type Machine,
  mostLatency_s,
  type Prompt,
  type Rig,
  type SignalRun,
  signalVersion,
  tick_s,
} from '@geolabe/core'

/** Further behind than this, practice waits for the device instead of running on unseen. */
const behind_s = 0.25

/** Signals under way: levers go in, time passes, what was done is noted. */
export class SignalRecorder {
  private readonly notes: LeverNotes
  private readonly stops: number[] = []
  private ticks = 0
  private owed_s = 0
  private stopAsked = false

  constructor(
    private readonly machine: Pick<Machine, 'id' | 'revision'>,
    rig: Rig,
    readonly course: readonly Prompt[],
    private readonly how: { seed: number; level: number },
  ) {
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

  stop() {
    this.stopAsked = true
  }

  /** So much time with the levers held so. False where the device was too far behind: time stood still meanwhile. */
  pass(seconds: number, held: readonly number[]): boolean {
    this.owed_s += Math.min(seconds, behind_s)
    while (this.owed_s >= tick_s && !this.over) {
      this.owed_s -= tick_s
      this.notes.note(this.ticks, held)
      if (this.stopAsked) this.stops.push(this.ticks)
      this.stopAsked = false
      this.ticks += 1
    }
    return seconds <= behind_s
  }

  run(id: string, latency_s: number): SignalRun {
    return {
      format: 'geolabe.practice/1',
      id,
      game: 'signal',
      version: signalVersion,
      machine: { id: this.machine.id, revision: this.machine.revision },
      seed: this.how.seed,
      level: this.how.level,
      inputs: this.notes.inputs,
      stops: this.stops,
      latency_s: Math.max(0, Math.min(mostLatency_s, latency_s)),
    }
  }
}
