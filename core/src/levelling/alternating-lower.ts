import { z } from 'zod'
import { defineCalculator } from '../calculator/define'
import { rad } from '../physics'
import { measuredPositive } from '../quantity/measured'
import { Refusal } from '../refusal'

/** One move of one side, and where both sides then are, down from where they stood. */
export interface Lowering {
  move: number
  side: 'first' | 'second'
  first_m: number
  second_m: number
}

/** More moves than this are no way to lower a machine. */
const most_moves = 400

/**
 * Two sides let down in turn so that neither is ever further down than the other by more than a step: one side goes a step, then each in turn two, the
 * last of each as far as is left.
 *
 * @param step_m the greatest difference, metres
 * @returns every move, in order
 * @throws Refusal `too-many` naming the limit that asks for them
 * @example loweringBy(0.42, 0.0367).length // 13
 */
export function loweringBy(stroke_m: number, step_m: number): Lowering[] {
  if (stroke_m / step_m > most_moves)
    throw new Refusal('too-many', `That takes over ${most_moves} moves; allow more tilt, or lower it less.`, 'limit_deg')
  const moves: Lowering[] = []
  // What is left by rounding is no move of its own.
  const down = (m: number) => (stroke_m - m < 1e-9 ? stroke_m : m)
  let [first_m, second_m] = [0, 0]
  for (
    let side: Lowering['side'] = 'first';
    first_m < stroke_m || second_m < stroke_m;
    side = side === 'first' ? 'second' : 'first'
  ) {
    // A side goes as far past the other as a step, and never past the end.
    if (side === 'first') first_m = down(second_m + step_m)
    else second_m = down(first_m + step_m)
    moves.push({ move: moves.length + 1, side, first_m, second_m })
  }
  return moves
}

export const alternatingLowerCalculator = defineCalculator({
  name: 'alternating-lower',
  purpose: 'How to let a machine down on its legs side by side in turn, so that it never tilts past a limit.',
  source: 'Plane geometry: s = span·tan(limit); one side goes s, then each side in turn 2·s.',
  cautions: [
    'Read the level after every move; over the limit, only the move that mends it.',
    'Both legs of a side go together. A leg that hangs back, sinks or creeps: stop.',
    'Nobody beneath, nothing on the hook, boom in its rest.',
  ],
  input: z.strictObject({
    /** Between the feet of the two sides. */
    span_m: measuredPositive,
    /** How far it comes down in all. */
    stroke_m: measuredPositive,
    /** How far it may tilt meanwhile. */
    limit_deg: measuredPositive,
  }),
  output: z.object({
    step_m: z.number(),
    moves: z.array(z.object({ move: z.int(), side: z.enum(['first', 'second']), first_m: z.number(), second_m: z.number() })),
    count: z.int(),
  }),
  worse: {
    step_m: 'low',
    moves: { rows: 'move' },
    'moves.*.move': 'given',
    'moves.*.side': 'given',
    'moves.*.first_m': 'low',
    'moves.*.second_m': 'low',
    count: 'high',
  },
  example: { span_m: 4.2, stroke_m: 0.42, limit_deg: 0.5 },
  compute: ({ span_m, stroke_m, limit_deg }) => {
    if (limit_deg > 15) throw new Refusal('out-of-range', 'No machine is let down at over 15°; is this in per cent?', 'limit_deg')
    const step_m = span_m * Math.tan(limit_deg * rad)
    const moves = loweringBy(stroke_m, step_m)
    return { step_m, moves, count: moves.length }
  },
})
