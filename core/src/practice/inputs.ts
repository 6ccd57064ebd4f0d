import { z } from 'zod'
import { Refusal } from '../refusal'

/** A lever's whole travel, as it is noted. */
export const fullLever = 127

/** When each lever changed: tick, axis in the rig’s order, −127 to 127. */
export const leverInputs = z
  .array(z.tuple([z.int().min(0), z.int().min(0).max(7), z.int().min(-fullLever).max(fullLever)]))
  .max(60_000)
export type LeverInputs = z.infer<typeof leverInputs>

/** @throws Refusal `inputs-order`, `axis-unknown` naming the first input that is out of order */
export function checkInputs(inputs: LeverInputs, axes: number, ticks: number): void {
  let last = -1
  let taken = new Set<number>()
  for (const [i, [tick, axis]] of inputs.entries()) {
    const at = `inputs.${i}`
    if (axis >= axes) throw new Refusal('axis-unknown', `This machine has ${axes} motions; input ${i + 1} is of another.`, at)
    if (tick !== last) taken = new Set()
    if (tick < last || taken.has(axis) || tick >= ticks)
      throw new Refusal(
        'inputs-order',
        `Inputs go forward in time, one a tick and motion, within the run; number ${i + 1} does not.`,
        at,
      )
    taken.add(axis)
    last = tick
  }
}

/** The levers of a run, tick by tick: `at` is asked with rising ticks. */
export function leversFrom(inputs: LeverInputs, axes: number): { at: (tick: number) => readonly number[] } {
  const levers = Array.from({ length: axes }, () => 0)
  let next = 0
  return {
    at: (tick) => {
      for (let input = inputs[next]; input && input[0] <= tick; input = inputs[++next]) levers[input[1]] = input[2] / fullLever
      return levers
    },
  }
}

/** Notes levers as they change, to be played again. */
export class LeverNotes {
  readonly inputs: LeverInputs = []
  private readonly levers: number[]

  constructor(axes: number) {
    this.levers = Array.from({ length: axes }, () => 0)
  }

  /** Levers held so at a tick, −1 to 1; as they are noted, in whole steps. */
  note(tick: number, held: readonly number[]): number[] {
    for (const [axis, u] of held.entries()) {
      const value = Math.round(u * fullLever)
      if (value === this.levers[axis]) continue
      this.levers[axis] = value
      this.inputs.push([tick, axis, value])
    }
    return this.levers.map((v) => v / fullLever)
  }
}
