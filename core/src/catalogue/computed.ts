import type { Machine } from '../machine/machine'
import {
  boundsOf,
  type CalcCondition,
  type Condition,
  type Facts,
  figureOf,
  type InputCondition,
  type Truth,
  within,
} from '../procedure/condition'
import { high, low, type Tol } from '../quantity/measured'
import { calculatorNamed } from './catalogue'
import { ownAnswer } from './own'

/** A figure or list as a calculator takes it, with what it refers to put in; undefined: something is not known. */
function filled(v: unknown, facts: Facts): unknown {
  if (Array.isArray(v)) {
    const all = v.map((x) => filled(x, facts))
    return all.includes(undefined) ? undefined : all
  }
  if (typeof v !== 'object' || v === null) return v
  if ('plan' in v && typeof v.plan === 'string') return facts.plan(v.plan) ?? undefined
  if ('state' in v && typeof v.state === 'string') return figureOf({ state: v.state }, facts)
  if ('input' in v && typeof v.input === 'string') return facts.input(v.input)
  const all = Object.entries(v).map(([k, x]) => [k, filled(x, facts)] as const)
  return all.some(([, x]) => x === undefined) ? undefined : Object.fromEntries(all)
}

const fieldOf = (answer: object, path: string): unknown =>
  path.split('.').reduce<unknown>((v, key) => (typeof v === 'object' && v !== null ? Reflect.get(v, key) : undefined), answer)

function answerTo(c: CalcCondition, facts: Facts, machine: Machine | null): object | null {
  const input = filled(c.with, facts)
  if (input === undefined) return null
  const answer = c.own ? machine && ownAnswer(machine, c.calc, input) : (calculatorNamed(c.calc)?.run(input) ?? null)
  return answer && 'error' in answer ? null : answer
}

/** How much is missing, and to which condition of several. */
export interface Short {
  by: number
  of: CalcCondition | InputCondition
}

/** How much is missing to a bound of a condition, both at their worse ends, in the unit of its field; null: nothing, or it has none. */
function shortOf(c: Condition, facts: Facts, machine: Machine | null): Short | null {
  if ('all' in c) return c.all.map((x) => shortOf(x, facts, machine)).find((x) => x !== null) ?? null
  if (!('calc' in c) && !('input' in c)) return null
  const answer = 'calc' in c ? answerTo(c, facts, machine) : null
  const value = 'calc' in c ? answer && endsOf(answer, c.field, fieldOf(answer, c.field)) : facts.input(c.input)
  if (value === null || value === undefined) return null
  const bounds = boundsOf(c, facts)
  if (bounds === undefined) return null
  const [least, most] = [bounds.atLeast, bounds.atMost].map((b) => (b === undefined ? undefined : figureOf(b, facts)))
  const short = Math.max(least === undefined ? 0 : high(least) - low(value), most === undefined ? 0 : high(value) - low(most))
  return short > 0 ? { by: short, of: c } : null
}

/**
 * A computed condition: a calculator asked with what the world knows, its answer held against the bounds at the worse end of every ±. Null where
 * something is not known, or the calculator refuses.
 */
function computed(c: CalcCondition, facts: Facts, machine: Machine | null): Truth {
  const answer = answerTo(c, facts, machine)
  if (answer === null) return null
  const value = fieldOf(answer, c.field)
  if (c.is !== undefined) return value === undefined ? null : value === c.is
  const ends = endsOf(answer, c.field, value)
  const bounds = boundsOf(c, facts)
  return ends === null || bounds === undefined ? null : within(ends, bounds.atLeast, bounds.atMost, facts)
}

/** What works out the computed conditions of an order. */
export interface Reckoning {
  computed: (c: CalcCondition, facts: Facts) => Truth
  shortOf: (c: Condition, facts: Facts) => Short | null
}

/**
 * The calculators, and a machine's own answers where its order asks them; null: of no machine, what only one could answer is not known.
 *
 * @example reckonedBy(heron).shortOf(need.if, facts)?.by // 6.88: degrees that the inner boom is too low
 */
export const reckonedBy = (machine: Machine | null): Reckoning => ({
  computed: (c, facts) => computed(c, facts, machine),
  shortOf: (c, facts) => shortOf(c, facts, machine),
})

/** A figure of an answer with both its ends; null: it has none, or one end cannot be said. */
function endsOf(answer: object, field: string, value: unknown): Tol | null {
  if (typeof value !== 'number') return null
  if (!('low' in answer && 'high' in answer)) return value
  const [low, high] = [answer.low, answer.high].map((end) => (typeof end === 'object' && end ? fieldOf(end, field) : undefined))
  if (low === undefined || high === undefined) return value
  if (typeof low !== 'number' || typeof high !== 'number') return null
  return { value: (low + high) / 2, tolerance: Math.abs(high - low) / 2 }
}
