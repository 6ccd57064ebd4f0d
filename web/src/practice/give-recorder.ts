import {
  headOf,
  type Machine,
  type ShownSituation,
  type SignalId,
  type SignalRun,
  shownBy,
  signalVersion,
  situations,
  tick_s,
} from '@geolabe/core'
import { Pace } from './pace'

/** Situations under way: time passes, and which signal was given when is noted. */
export class GiveRecorder {
  private readonly pace = new Pace()
  private readonly gave: [number, SignalId][] = []
  private readonly all: ReturnType<typeof situations>
  private ticks = 0

  constructor(
    private readonly machine: Pick<Machine, 'id' | 'revision'>,
    private readonly how: { seed: number; level: number },
  ) {
    this.all = situations(how.seed, how.level)
  }

  private get shown(): ShownSituation[] {
    return shownBy(this.all, this.gave)
  }

  /** What is seen now, and which it is; null: between two of them. */
  get now(): { shown: ShownSituation; number: number } | null {
    const i = this.shown.findIndex((s) => this.ticks >= s.from && this.ticks < s.until)
    const shown = this.shown[i]
    return shown ? { shown, number: i + 1 } : null
  }

  /** The last that is over; null: none is yet. */
  get last(): ShownSituation | null {
    return this.shown.findLast((s) => this.ticks >= s.until) ?? null
  }

  get count(): number {
    return this.all.length
  }

  get time_s(): number {
    return this.ticks * tick_s
  }

  get over(): boolean {
    return this.ticks >= (this.shown.at(-1)?.until ?? 0)
  }

  /** A signal; between two situations it is none. */
  give(signal: SignalId) {
    if (this.now) this.gave.push([this.ticks, signal])
  }

  pass(seconds: number): boolean {
    return this.pace.pass(
      seconds,
      () => this.over,
      () => {
        this.ticks += 1
      },
    )
  }

  run(id: string): SignalRun {
    return {
      ...headOf(this.machine, this.how, id),
      game: 'signal',
      version: signalVersion,
      inputs: [],
      stops: [],
      latency_s: 0,
      gave: this.gave,
    }
  }
}
