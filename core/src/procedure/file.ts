import { z } from 'zod'
import { assemblyTask } from '../assembly/plan'
import { quantity } from '../finding/finding'
import { drawnSignals } from '../hand-signals/hand-signal'
import { finite, notNegative, positive } from '../quantity/measured'
import { condition, partsOf, type StateValue, statesIn, stateValue, unknown } from './condition'
import { emergencies } from './emergency'

const id = z.string().regex(/^[a-z][A-Za-z0-9.:_-]*$/, 'Begin with a small letter; then letters, figures, . : _ -')
const text = z.string().min(1).max(2000)

/** What can make a state unknown again. */
export const losing = z.enum(['leaving', 'operator', 'setup', 'stop', 'moved', 'sight', 'impact', 'load', 'change', 'rest'])
export type Losing = z.infer<typeof losing>

export const hazard = z.enum(['drop', 'roll', 'tip', 'crush', 'pressure', 'fall', 'shock', 'fire'])

/** Which of several alike a state or a step is of, as it is said; and what it is written as for all of them. */
const member = z.strictObject({ of: text, id: text, label: text, base: text })

const stateDeclaration = z.strictObject({
  id,
  label: text,
  /** What it can be, as it is said; left out: a figure. */
  values: z
    .array(z.strictObject({ id: text, label: text }))
    .min(2)
    .optional(),
  unit: text.optional(),
  /** At the start of a shift: *unknown* unless it cannot be otherwise. */
  initial: stateValue.default(unknown),
  /** What it is as a rule when a machine is taken: offered as what it is now, never taken for it. */
  usual: stateValue.optional(),
  lost: z.array(losing).default([]),
  lostAfter_s: positive.optional(),
  /** Opening it could drop or free a part, unless something else holds that. */
  holds: z.strictObject({ open: text, part: text, instead: condition }).optional(),
  source: z.enum(['person', 'computed', 'device']).default('person'),
  member: member.optional(),
  /** Where a computed state is read in the plan; what it is where the plan does not say is its initial. */
  plan: text.optional(),
})
export type StateDeclaration = z.infer<typeof stateDeclaration>

export const need = z.strictObject({
  id,
  if: condition,
  /** What breaks when it is not so. */
  because: text,
  /** The step that makes it true. */
  remedy: z.string().optional(),
})
export type Need = z.infer<typeof need>

const measure = z.strictObject({
  id,
  ask: text,
  /** In SI, typed and shown in whoever’s unit; or a gauge’s own unit, as it is written on it. */
  in: z.union([z.strictObject({ quantity }), z.strictObject({ unit: text })]),
  min: finite,
  max: finite,
  /** How far off a reading may be; *ask*: whoever reads it says. */
  tolerance: z.union([notNegative, z.literal('ask')]),
  how: text,
  /** A reading as it is when all is well: always the same, or as it is planned. */
  usual: z.union([finite, z.strictObject({ plan: text })]).optional(),
})
export type Measure = z.infer<typeof measure>

const undo = z.discriminatedUnion('how', [
  z.strictObject({ how: z.literal('mistap'), within_s: positive.default(10) }),
  z.strictObject({ how: z.literal('steps'), steps: z.array(z.string()).min(1) }),
  z.strictObject({ how: z.literal('never'), because: text }),
])

/** One step as it is written. */
export const step = z.strictObject({
  id,
  label: text,
  detail: text.optional(),
  /** What goes wrong when it is done out of turn, or not at all. */
  caution: text.optional(),
  member: member.optional(),
  /** Hand signals that are agreed with it, drawn beside it: which drawing, and what it means here. */
  signals: z
    .array(z.strictObject({ drawn: z.enum(drawnSignals), means: text }))
    .max(12)
    .default([]),
  /** Where whoever does it stands. */
  at: z.string().optional(),
  every: z.enum(['time', 'change', 'shift']).default('time'),
  /** Done as often as it takes, each time asked anew: a push of one side, then of the other. */
  repeats: z.boolean().default(false),
  /** Hands and eyes are on the machine, as it moves or carries: nothing is asked meanwhile, and it is told with the next step that leaves a hand free. */
  handsFull: z.boolean().default(false),
  /** What a confirmed step vouches for in an assessment. */
  proves: z.string().optional(),
  /** It is a step only while this is true. */
  when: condition.optional(),
  needs: z.array(need).max(60).default([]),
  /** Must stay true while it lasts. */
  keeps: z.array(need).max(60).default([]),
  sets: z
    .array(z.strictObject({ state: z.string(), to: z.union([stateValue, z.strictObject({ from: z.string() })]) }))
    .default([]),
  /** What is lost with it, as with an event of that name: who gets down is away from the machine. */
  loses: losing.optional(),
  hazards: z.array(hazard).default([]),
  /** The machine's control is held, or a watch kept with all controls let go, for so long. */
  hold: z
    .strictObject({
      least_s: positive,
      most_s: positive.optional(),
      /** Let go early: nothing has happened, or what it was to make stands nobody knows where. */
      early: z.enum(['restart', 'incomplete']),
      watch: z.boolean().default(false),
    })
    .optional(),
  /** Two people: one acts, one signals, both confirm. */
  two: z
    .strictObject({ acts: text, signals: text, engine: z.enum(['on', 'off', 'either']), first: z.array(need).default([]) })
    .optional(),
  measures: z.array(measure).default([]),
  /** Figures that are looked for meanwhile, as they are planned: shown beside it, not asked. */
  planned: z
    .array(z.strictObject({ label: text, plan: text, quantity }))
    .max(12)
    .default([]),
  undo: undo.default({ how: 'mistap', within_s: 10 }),
})
export type Step = z.infer<typeof step>

/** The stations that a procedure can be shown at. */
export const orderStation = z.enum(['setup', 'lift', 'stow'])
export type OrderStation = z.infer<typeof orderStation>

const procedure = z.strictObject({
  id,
  label: text,
  station: orderStation,
  /** It is offered only while this is true. */
  when: condition.optional(),
  /** The station waits for its goal; left out: it is there when it is wanted. */
  required: z.boolean().default(false),
  /** The station waits for it while this is true. */
  requiredIf: condition.optional(),
  /** It brings the machine back to where nothing hangs or is raised: the only one that is offered while a symptom is followed. */
  back: z.boolean().default(false),
  start: z.array(need).default([]),
  goal: z.array(condition).min(1),
  steps: z.array(step).min(1).max(200),
})
export type Procedure = z.infer<typeof procedure>

const invariant = z.strictObject({
  id,
  never: condition,
  /** Steps as which are done it must not be; left out: it must not come to be by any step. */
  doing: z.array(z.string()).min(1).optional(),
  because: text,
})
export type Invariant = z.infer<typeof invariant>

const stopMap = z.strictObject({
  id,
  label: text,
  post: z.string().optional(),
  kills: z.array(z.strictObject({ state: z.string(), to: stateValue })).default([]),
  stillMoves: z.array(text).min(1),
  unknownAfter: z.array(z.string()).default([]),
  /** In this order, each confirmed. */
  reset: z.array(text).min(1),
  relink: z.boolean().default(false),
})
export type StopMap = z.infer<typeof stopMap>

/** One permitted purpose, held by hand, timed; each use is recorded. */
const override = z.strictObject({
  id,
  label: text,
  purpose: text,
  needs: z.array(need).default([]),
  /** It is let go by then; longer, it lets nothing pass. */
  most_s: positive,
  /** Needs that it may pass, by id. */
  waits: z.array(z.string()).default([]),
  /** Only with nothing hung; or with what hangs, where its purpose is to bring it back in. */
  load: z.enum(['none', 'as-is']),
  /** What must follow before the next lift, and whose part that is: never of who used it. */
  follow: z.strictObject({ what: text, by: z.enum(['fitter', 'person-in-charge']) }),
  /** Its use takes the machine out of service. */
  stops: z.boolean().default(false),
})
export type Override = z.infer<typeof override>

const shape = z.strictObject({
  posts: z
    .array(z.strictObject({ id, label: text }))
    .max(60)
    .default([]),
  states: z.array(stateDeclaration).max(500).default([]),
  procedures: z.array(procedure).min(1).max(60),
  invariants: z.array(invariant).max(500).default([]),
  stops: z.array(stopMap).max(60).default([]),
  overrides: z.array(override).max(60).default([]),
  /** What is done first when something has gone wrong, where it is not as on every machine. */
  emergency: emergencies.default({ without: [], own: [] }),
  /** Ways of putting it together, each with its tasks; what a step needs is not theirs to say. */
  assembly: z
    .array(z.strictObject({ id, label: text, tasks: z.array(assemblyTask).min(1).max(200) }))
    .max(30)
    .default([]),
})
export type ProcedureFile = z.infer<typeof shape>

/** What a file has lists of besides its steps, each by its own shape. */
export const orderParts: { [K in OrderPartName]: z.ZodType<ProcedureFile[K][number]> } = {
  invariants: invariant,
  states: stateDeclaration,
  stops: stopMap,
  overrides: override,
  procedures: procedure,
}
export type OrderPartName = 'invariants' | 'states' | 'stops' | 'overrides' | 'procedures'

/** Whether a step can be told with others: no hand is held, no figure read, nobody else asked. */
export const toldLater = (s: Step): boolean => !s.hold && !s.two && s.measures.length === 0 && !s.repeats

export const stepsOfFile = (f: ProcedureFile): Step[] => f.procedures.flatMap((p) => p.steps)

type Named = [path: (string | number)[], what: 'state' | 'step' | 'input' | 'post', id: string, value?: StateValue]

/** Everything that a condition names. */
function namesIn(path: (string | number)[], c: z.infer<typeof condition>): Named[] {
  return [...partsOf(c)].flatMap((x): Named[] => {
    if ('state' in x)
      return [
        [path, 'state', x.state],
        ...[x.is, x.not, ...(x.in ?? [])].flatMap((v): Named[] => (v === undefined ? [] : [[path, 'state', x.state, v]])),
      ]
    if ('done' in x) return [[path, 'step', x.done]]
    const bounds = 'calc' in x || 'input' in x ? [x.atLeast, x.atMost, x.near?.to].flatMap((v) => namesInRef(path, v)) : []
    if ('input' in x) return [[path, 'input', x.input], ...bounds]
    if ('calc' in x) return [...Object.values(x.with).flatMap((v) => namesInRef(path, v)), ...bounds]
    return []
  })
}

/** The state or reading that a figure is taken from. */
function namesInRef(path: (string | number)[], v: unknown): Named[] {
  if (typeof v !== 'object' || v === null) return []
  if ('input' in v && typeof v.input === 'string') return [[path, 'input', v.input]]
  return 'state' in v && typeof v.state === 'string' ? [[path, 'state', v.state]] : []
}

function namesInNeeds(path: (string | number)[], needs: readonly Need[]): Named[] {
  return needs.flatMap((n, i): Named[] => [
    ...namesIn([...path, i, 'if'], n.if),
    ...(n.remedy === undefined ? [] : [[[...path, i, 'remedy'], 'step', n.remedy] satisfies Named]),
  ])
}

function namesInStep(at: (string | number)[], s: Step): Named[] {
  return [
    ...(s.at === undefined ? [] : [[[...at, 'at'], 'post', s.at] satisfies Named]),
    ...(s.when ? namesIn([...at, 'when'], s.when) : []),
    ...namesInNeeds([...at, 'needs'], s.needs),
    ...namesInNeeds([...at, 'keeps'], s.keeps),
    ...(s.two ? namesInNeeds([...at, 'two', 'first'], s.two.first) : []),
    ...s.sets.map(({ state, to }, i): Named => {
      const path = [...at, 'sets', i]
      return typeof to === 'object' ? [path, 'input', to.from] : [path, 'state', state, to]
    }),
    ...s.sets.map(({ state }, i): Named => [[...at, 'sets', i, 'state'], 'state', state]),
    ...(s.undo.how === 'steps' ? s.undo.steps.map((x): Named => [[...at, 'undo'], 'step', x]) : []),
  ]
}

function namesInFile(f: ProcedureFile): Named[] {
  return [
    ...f.states.flatMap((s, i): Named[] => (s.holds ? namesIn(['states', i, 'holds'], s.holds.instead) : [])),
    ...f.procedures.flatMap((p, i): Named[] => [
      ...(p.when ? namesIn(['procedures', i, 'when'], p.when) : []),
      ...(p.requiredIf ? namesIn(['procedures', i, 'requiredIf'], p.requiredIf) : []),
      ...namesInNeeds(['procedures', i, 'start'], p.start),
      ...p.goal.flatMap((g, k) => namesIn(['procedures', i, 'goal', k], g)),
      ...p.steps.flatMap((s, k) => namesInStep(['procedures', i, 'steps', k], s)),
    ]),
    ...f.invariants.flatMap((v, i): Named[] => [
      ...namesIn(['invariants', i, 'never'], v.never),
      ...(v.doing ?? []).map((s): Named => [['invariants', i, 'doing'], 'step', s]),
    ]),
    ...f.stops.flatMap((s, i): Named[] => [
      ...s.kills.map((k, j): Named => [['stops', i, 'kills', j], 'state', k.state, k.to]),
      ...s.unknownAfter.map((u): Named => [['stops', i, 'unknownAfter'], 'state', u]),
    ]),
    ...f.overrides.flatMap((o, i) => namesInNeeds(['overrides', i, 'needs'], o.needs)),
    ...f.assembly.flatMap((v, i) =>
      v.tasks.flatMap((x, k) => x.steps.map((s): Named => [['assembly', i, 'tasks', k, 'steps'], 'step', s])),
    ),
  ]
}

/** The first id that stands twice. */
function twice(ids: readonly string[]): string | undefined {
  const seen = new Set<string>()
  return ids.find((x) => seen.has(x) || !seen.add(x))
}

/** A machine's sequences: states, steps with what each needs, what must never be. Everything that it names is in it. */
export const procedureFile = shape.superRefine((f, ctx) => {
  const issue = (path: (string | number)[], message: string) => ctx.addIssue({ code: 'custom', path, message })
  const steps = stepsOfFile(f)
  const states = new Map(f.states.map((s) => [s.id, s]))
  const known = {
    state: new Set(states.keys()),
    step: new Set(steps.map((s) => s.id)),
    input: new Set(steps.flatMap((s) => s.measures.map((m) => m.id))),
    post: new Set(f.posts.map((p) => p.id)),
  }
  for (const [what, ids] of [
    ['states', f.states.map((s) => s.id)],
    ['procedures', f.procedures.map((p) => p.id)],
    ['invariants', f.invariants.map((v) => v.id)],
  ] as const) {
    const double = twice(ids)
    if (double) issue([what], `Two have the id “${double}”.`)
  }
  const double = twice(steps.map((s) => s.id))
  if (double) issue(['procedures'], `Two steps have the id “${double}”.`)
  for (const [i, p] of f.procedures.entries())
    for (const [k, s] of p.steps.entries())
      if (s.handsFull && !toldLater(s))
        issue(
          ['procedures', i, 'steps', k, 'handsFull'],
          'What is held, measured, repeated or done by two is told as it is done: leave “handsFull” out.',
        )
  for (const [path, what, name, value] of namesInFile(f)) {
    if (!known[what].has(name)) issue(path, `There is no ${what} “${name}” in this file.`)
    else if (what === 'state' && value !== undefined && value !== unknown) {
      const values = states.get(name)?.values
      if (values && !values.some((v) => v.id === value)) issue(path, `“${name}” is never “${value}”.`)
    }
  }
})

/** The states that a step sets. */
export const setBy = (s: Step): string[] => s.sets.map((x) => x.state)
/** The states that an invariant speaks of. */
export const statesOf = (v: Invariant): string[] => statesIn(v.never)
/** Whether a rule looks at a step: it is about doing it, or the step sets a state that it speaks of. */
export const concerns = (v: Invariant, s: Step): boolean =>
  v.doing ? v.doing.includes(s.id) : s.sets.some((x) => statesOf(v).includes(x.state))
