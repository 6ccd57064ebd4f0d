import { z } from 'zod'
import { finite, high, low, positive, type Tol, tolerant } from '../quantity/measured'

/** What a state of a machine is: a word or a figure; *unknown* satisfies no condition. */
export const stateValue = z.union([z.string().min(1), finite])
export type StateValue = z.infer<typeof stateValue>
export const unknown = 'unknown'

/** Where a figure of a condition comes from. */
const ref = z.union([
  finite,
  z.strictObject({ state: z.string() }),
  z.strictObject({ input: z.string() }),
  z.strictObject({ plan: z.string() }),
])
export type Ref = z.infer<typeof ref>

const stateCondition = z.strictObject({
  state: z.string(),
  is: stateValue.optional(),
  in: z.array(stateValue).min(1).optional(),
  not: stateValue.optional(),
  atLeast: finite.optional(),
  atMost: finite.optional(),
})
const bounds = {
  atLeast: ref.optional(),
  atMost: ref.optional(),
  /** No further from a figure, up or down, than this much, or this share of it. */
  near: z.union([z.strictObject({ to: ref, by: positive }), z.strictObject({ to: ref, share: positive.max(1) })]).optional(),
}
const inputCondition = z.strictObject({ input: z.string(), ...bounds })
export type InputCondition = z.infer<typeof inputCondition>
/** Asked of a calculator by name; its answer is held against a bound at the worse end of every ±. */
const calcCondition = z.strictObject({
  calc: z.string(),
  /** What the machine’s own figures do not fill in, where it asks them. */
  own: z.literal(true).optional(),
  with: z.record(z.string(), z.unknown()),
  field: z.string(),
  ...bounds,
  is: z.union([z.string(), z.boolean()]).optional(),
})
const doneCondition = z.strictObject({ done: z.string() })

export type Condition =
  | z.infer<typeof stateCondition>
  | InputCondition
  | z.infer<typeof calcCondition>
  | z.infer<typeof doneCondition>
  | { all: Condition[] }
  | { any: Condition[] }
  | { no: Condition }

export const condition: z.ZodType<Condition> = z.lazy(() =>
  z.union([
    stateCondition,
    inputCondition,
    calcCondition,
    doneCondition,
    z.strictObject({ all: z.array(condition).min(1) }),
    z.strictObject({ any: z.array(condition).min(1) }),
    z.strictObject({ no: condition }),
  ]),
)
export type CalcCondition = z.infer<typeof calcCondition>

/** What a condition is asked of. */
export interface Facts {
  state: (id: string) => StateValue
  done: (step: string) => boolean
  input: (id: string) => Tol | undefined
  plan: (path: string) => unknown
  /** Whether a computed condition holds; null: it cannot be worked out. */
  computed: (c: CalcCondition, facts: Facts) => boolean | null
}

/** True, false, or null where something that decides it is not known. */
export type Truth = boolean | null

export const negated = (t: Truth): Truth => (t === null ? null : !t)
const all = (of: readonly Truth[]): Truth => (of.includes(false) ? false : of.includes(null) ? null : true)
const any = (of: readonly Truth[]): Truth => (of.includes(true) ? true : of.includes(null) ? null : false)

/** A measured figure as a condition may use it; undefined: there is none. */
export function figureOf(r: Ref, facts: Facts): Tol | undefined {
  if (typeof r === 'number') return r
  if ('input' in r) return facts.input(r.input)
  const v = 'state' in r ? facts.state(r.state) : facts.plan(r.plan)
  if (typeof v === 'number') return v
  const { data } = tolerant.safeParse(v)
  return data
}

/** The whole of a figure's doubt on the right side of both bounds. */
export function within(t: Tol, atLeast: Ref | undefined, atMost: Ref | undefined, facts: Facts): Truth {
  const bounds = [atLeast, atMost].map((b) => (b === undefined ? undefined : figureOf(b, facts)))
  const [least, most] = bounds
  if ((atLeast !== undefined && least === undefined) || (atMost !== undefined && most === undefined)) return null
  return (least === undefined || low(t) >= high(least)) && (most === undefined || high(t) <= low(most))
}

/** Between which figures a reading has to lie, whatever is said of it; undefined: one of them is not known. */
export function boundsOf(
  c: InputCondition | CalcCondition,
  facts: Facts,
): { atLeast: Ref | undefined; atMost: Ref | undefined } | undefined {
  const { near, atLeast, atMost } = c
  if (!near) return { atLeast, atMost }
  const to = figureOf(near.to, facts)
  if (to === undefined) return undefined
  const by = 'by' in near ? near.by : near.share * Math.abs(low(to))
  return { atLeast: high(to) - by, atMost: low(to) + by }
}

/** Whether a state that is this answers to a condition; null where it is unknown. */
export function stateHolds(c: z.infer<typeof stateCondition>, v: StateValue): Truth {
  if (v === unknown) return null
  const figure = typeof v === 'number' ? v : Number.NaN
  return (
    (c.is === undefined || v === c.is) &&
    (c.in === undefined || c.in.includes(v)) &&
    (c.not === undefined || v !== c.not) &&
    (c.atLeast === undefined || figure >= c.atLeast) &&
    (c.atMost === undefined || figure <= c.atMost)
  )
}

/**
 * Whether a condition holds, in three values: what rests on something unknown is null, and its contrary too.
 *
 * @example holds({ no: { state: 'brake', is: 'on' } }, facts) // null while nobody knows of the brake
 */
export function holds(c: Condition, facts: Facts): Truth {
  if ('state' in c) return stateHolds(c, facts.state(c.state))
  if ('done' in c) return facts.done(c.done)
  if ('input' in c) {
    const t = facts.input(c.input)
    const bounds = boundsOf(c, facts)
    return t === undefined || bounds === undefined ? null : within(t, bounds.atLeast, bounds.atMost, facts)
  }
  if ('calc' in c) return facts.computed(c, facts)
  if ('all' in c) return all(c.all.map((x) => holds(x, facts)))
  if ('any' in c) return any(c.any.map((x) => holds(x, facts)))
  return negated(holds(c.no, facts))
}

/** Every condition in a condition, itself among them. */
export function* partsOf(c: Condition): Generator<Condition> {
  yield c
  if ('all' in c) for (const x of c.all) yield* partsOf(x)
  else if ('any' in c) for (const x of c.any) yield* partsOf(x)
  else if ('no' in c) yield* partsOf(c.no)
}

/** A step's doing, as a name beside those of states. */
export const doneId = (step: string) => `done ${step}`

/** What is computed or read off, as a name beside those of states: the analysis lets it come out either way. */
export const oracleId = (c: Condition) => `asked ${JSON.stringify(c)}`
export const oraclesIn = (c: Condition): string[] =>
  [...partsOf(c)].flatMap((x) => ('calc' in x || 'input' in x ? [oracleId(x)] : []))

/** Everything that a condition names: states, and steps done. */
export const namedIn = (c: Condition): string[] =>
  [...partsOf(c)].flatMap((x) => ('state' in x ? [x.state] : 'done' in x ? [doneId(x.done)] : []))

const inputsOfRef = (r: unknown): string[] =>
  typeof r === 'object' && r !== null && 'input' in r && typeof r.input === 'string' ? [r.input] : []
/** The readings that a condition looks at. */
export const inputsIn = (c: Condition): string[] =>
  [...partsOf(c)].flatMap((x) => {
    if (!('input' in x || 'calc' in x)) return []
    const held = [x.atLeast, x.atMost, x.near?.to].flatMap(inputsOfRef)
    return 'input' in x ? [x.input, ...held] : [...Object.values(x.with).flatMap(inputsOfRef), ...held]
  })

function* plansInRef(r: unknown): Generator<string> {
  if (Array.isArray(r)) for (const x of r) yield* plansInRef(x)
  else if (typeof r === 'object' && r !== null) {
    if ('plan' in r && typeof r.plan === 'string') yield r.plan
    else for (const x of Object.values(r)) yield* plansInRef(x)
  }
}
/** What of the plan a condition looks at, as paths into it. */
export const plansIn = (c: Condition): string[] =>
  [...partsOf(c)].flatMap((x) =>
    'calc' in x || 'input' in x
      ? [...plansInRef('calc' in x ? x.with : null), ...[x.atLeast, x.atMost, x.near?.to].flatMap((r) => [...plansInRef(r)])]
      : [],
  )

/** The states that a condition looks at. */
export const statesIn = (c: Condition): string[] => [...partsOf(c)].flatMap((x) => ('state' in x ? [x.state] : []))
