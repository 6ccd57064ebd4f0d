import type { PracticeRun, TrySoFar } from '@geolabe/contract'
import {
  actsFrom,
  courseFor,
  Drill,
  type DriveRun,
  driveOn,
  type LoadRun,
  type Machine,
  playDrive,
  type Rig,
  rigOf,
  stepsOf,
  type TruckDrive,
} from '@geolabe/core'
import { drawDrive, drawTriangle } from './drive-scene'
import { drawPlan, drawSide, type Sheet } from './scene'
import { type Trace, traceEvery_ticks } from './trace'

/** A run that can be drawn at each of its moments. */
export interface Again {
  /** Of the run. */
  readonly ticks: number
  /** The moment that it stands at. */
  readonly tick: number
  /** Forward it goes on from where it stands; back it begins anew. */
  to: (tick: number) => void
  draw: (above: Sheet | null, beside: Sheet | null) => void
}

/** A run that is under way: more of it comes. */
export interface Growing extends Again {
  more: (soFar: TrySoFar) => void
}

abstract class Stepped<R extends PracticeRun> implements Growing {
  tick = 0

  constructor(
    protected run: R,
    public ticks: number,
  ) {}

  /** What is done at the moments to come; those before it have passed. */
  protected abstract resume(): void
  protected abstract begin(): void
  protected abstract step(tick: number): void
  abstract draw(above: Sheet | null, beside: Sheet | null): void

  to(tick: number) {
    const wanted = Math.max(1, Math.min(this.ticks, Math.round(tick)))
    if (wanted < this.tick) {
      this.begin()
      this.tick = 0
    }
    for (; this.tick < wanted; this.tick++) this.step(this.tick)
  }

  more({ run, ticks }: TrySoFar) {
    if (run.id !== this.run.id || ticks <= this.ticks) return
    // Of the same try: more of the same run.
    this.run = run as R
    this.ticks = ticks
    this.resume()
  }
}

class LoadAgain extends Stepped<LoadRun> {
  private readonly whole: Rig
  private drill: Drill
  private next: (tick: number) => void

  constructor(
    private readonly machine: Machine,
    run: LoadRun,
    private readonly ghost: Trace | null,
  ) {
    super(run, run.ticks)
    this.whole = rigOf(machine)
    this.drill = new Drill(this.whole, courseFor(this.whole, run.seed, run.level, run.settings))
    this.next = stepsOf(this.drill, run)
    this.to(1)
  }

  protected begin() {
    this.drill = new Drill(this.whole, this.drill.course)
    this.resume()
  }

  protected resume() {
    this.next = stepsOf(this.drill, this.run)
  }

  protected step(tick: number) {
    if (!this.drill.over) this.next(tick)
  }

  draw(above: Sheet | null, beside: Sheet | null) {
    const s = this.drill.samples.at(-1)
    if (!s) return
    const ghost = this.ghost && (this.ghost.load[Math.floor(this.tick / traceEvery_ticks)] ?? this.ghost.load.at(-1))
    if (above) drawPlan(above, this.drill, this.machine.outline.plan, s, ghost)
    if (beside) drawSide(beside, this.drill, s)
  }
}

class DriveAgain extends Stepped<DriveRun> {
  private drive: TruckDrive
  private acts: ReturnType<typeof actsFrom>

  constructor(
    private readonly machine: Machine,
    run: DriveRun,
    ticks: number,
  ) {
    super(run, ticks)
    this.drive = driveOn(machine, run)
    this.acts = actsFrom(run)
    this.to(1)
  }

  protected begin() {
    this.drive = driveOn(this.machine, this.run)
    this.acts = actsFrom(this.run)
  }

  protected resume() {
    this.acts = actsFrom(this.run)
    // What is held is told by every moment before.
    for (let tick = 0; tick < this.tick; tick++) this.acts(tick)
  }

  protected step(tick: number) {
    if (!this.drive.over) this.drive.tick(this.acts(tick))
  }

  draw(above: Sheet | null, beside: Sheet | null) {
    if (above) drawDrive(above, this.drive, this.machine.outline.plan)
    if (beside) drawTriangle(beside, this.drive)
  }
}

/**
 * A run to be seen again; null for one of which there is nothing to see but what was said.
 *
 * @param ghost where the reference went meanwhile
 */
export function againOf(machine: Machine, run: PracticeRun, ghost: Trace | null = null): Again | null {
  if (run.game === 'load') return new LoadAgain(machine, run, ghost)
  if (run.game === 'drive') return new DriveAgain(machine, run, playDrive(machine, run).ticks)
  return null
}

/** A run to be watched while it is under way. */
export const watchedOf = (machine: Machine, { run, ticks }: TrySoFar): Growing =>
  run.game === 'load' ? new LoadAgain(machine, { ...run, ticks }, null) : new DriveAgain(machine, run, ticks)
