import type { z } from 'zod'
import { nth } from '../list'
import type { Nominal } from '../quantity/measured'
import { Refusal, type RefusalBody } from '../refusal'
import { withBounds } from './bounds'
import { plainBounds, plainIssue } from './plain-issue'
import { implausible } from './plausible'
import type { Transfers } from './transfer'
import type { WorseByField } from './worse'

/** @typeParam In what it is asked, parsed; @typeParam Out what it answers */
export interface Calculator<In = unknown, Out extends object = object> {
  name: string
  /** What it answers, in one plain sentence. */
  purpose: string
  /** Standard or textbook, stated beside the result. */
  source: string
  /** What it cannot know and a person has to mind; shown with every answer. */
  cautions: readonly string[]
  /** A worked example: the figures a screen opens with, and what docs and tests run. */
  example: object
  input: z.ZodType<In>
  output: z.ZodType<Out>
  /** Which way of each field of the answer is the worse. */
  worse: WorseByField
  /** Figures of the answer that a lift is proved with; see `transferToLift`. */
  transfers?: Transfers<Out> | undefined
  /** Parsed, bounded and checked answer, or a refusal. Never throws, never NaN. Beside it `implausible`: figures that look like a slip of the unit. */
  run: (input: unknown) => object | RefusalBody
}

/** Declares a calculator: its schemas, its pure function on plain numbers, and what it rests on. */
export function defineCalculator<In, Out extends object, Raw extends object>(c: {
  name: string
  purpose: string
  source: string
  cautions: readonly string[]
  example: Raw
  input: z.ZodType<In, Raw>
  output: z.ZodType<Out>
  worse: WorseByField
  /** Answers that a ± may cost beyond its corners; see `withBounds`. */
  effort?: number
  compute: (input: Nominal<In>) => Out
  /** Figures of the answer that a lift is proved with. */
  transfers?: Transfers<Out>
}): Calculator<In, Out> {
  return {
    name: c.name,
    purpose: c.purpose,
    source: c.source,
    cautions: c.cautions,
    example: c.example,
    input: c.input,
    output: c.output,
    worse: c.worse,
    transfers: c.transfers,
    run: (raw) =>
      answer(() => {
        const parsed = parseOrRefuse(c.input, raw)
        const compute = (plain: unknown) => {
          const result = c.compute(plain as Nominal<In>)
          requireFinite(result, '')
          return result
        }
        const answered = withBounds(parsed, compute, { worse: c.worse, effort: c.effort })
        const odd = implausible(parsed)
        return odd.length > 0 ? { ...answered, implausible: odd } : answered
      }),
  }
}

/** Runs and turns a Refusal into its body; anything else thrown is a defect of ours and passes through. */
export function answer<T extends object>(run: () => T): T | RefusalBody {
  try {
    return run()
  } catch (e) {
    if (e instanceof Refusal) return e.body
    throw e
  }
}

/** @throws Refusal `bad-input` naming the first field at fault and how to put it right. */
export function parseOrRefuse<S extends z.ZodType>(schema: S, raw: unknown): z.output<S> {
  const parsed = schema.safeParse(raw, { reportInput: true, error: plainBounds })
  if (parsed.success) return parsed.data
  const { code, message, path } = plainIssue(nth(parsed.error.issues, 0))
  throw new Refusal(code, message, path)
}

/** Above this a figure is no answer: nothing measured on a machine comes near it. */
const enormous = 1e15

function requireFinite(value: unknown, path: string): void {
  if (typeof value === 'number' && !(Math.abs(value) < enormous)) {
    throw new Refusal('out-of-range', 'These figures are too large or too small to compute with; check their units.', path)
  }
  if (typeof value === 'object' && value !== null) {
    for (const [k, v] of Object.entries(value)) requireFinite(v, path === '' ? k : `${path}.${k}`)
  }
}
