import { z } from 'zod'
import { nth } from '../list'
import { Refusal } from '../refusal'
import { crewOf, type Hand, isThere } from './crew'
import { criticalPath, inOrder, type Timed } from './network'

const id = z.string().trim().min(1).max(60)
const minutes = z.number('Give minutes.').nonnegative('Not less than nothing.').max(10_000, 'At most a week.')

/** One task of putting a machine together, or taking it apart. */
export const assemblyTask = z.strictObject({
  id,
  label: z.string().trim().min(1).max(120),
  needs: z.array(id).max(60).default([]),
  /** What lifts it: the machine itself, another crane, nothing. */
  resource: z.enum(['crane', 'assist']).nullable().default(null),
  people: z.int('Whole people.').min(1, 'Somebody has to do it.').max(30),
  /** Roles among them, each somebody of their own. */
  roles: z.array(id).max(30).default([]),
  minutes: z.strictObject({ low: minutes, likely: minutes, high: minutes }),
  /** A place where only one task at a time goes on. */
  space: id.optional(),
  /** What the assist crane has to lift, where the task takes it. */
  lifted_kg: z.number().positive().optional(),
  /** Steps of the machine's order that are this task. */
  steps: z.array(id).max(60).default([]),
  /** How it went, once it is begun: it stays, and what follows moves. */
  done: z.strictObject({ from_min: minutes, to_min: minutes }).optional(),
})
export type AssemblyTask = z.infer<typeof assemblyTask>

export const assemblyInput = z.strictObject({
  tasks: z.array(assemblyTask).min(1, 'Name at least one task.').max(200),
  /** Who is there and when; a break: the same person twice. Left out: as many as are wanted. */
  people: z
    .array(z.strictObject({ id, roles: z.array(id).max(30).default([]), from_min: minutes, to_min: minutes }))
    .max(100)
    .optional(),
  assist: z
    .strictObject({ available: z.boolean(), from_min: minutes.default(0), rated_kg: z.number().positive() })
    .nullable()
    .default(null),
})
export type AssemblyInput = z.infer<typeof assemblyInput>

const ends = ['low', 'likely', 'high'] as const
type End = (typeof ends)[number]

/** A task with when it is done and by whom. */
export interface Scheduled extends Timed {
  id: string
  start_min: number
  finish_min: number
  people: string[]
}
export interface AssemblyPlan {
  /** With as many people as are wanted: when the last task ends, by each of its times. */
  unlimited_min: Record<End, number>
  /** With these people, one crane, one assist crane, one task at a place. */
  finish_min: Record<End, number>
  /** Tasks that put off the end of all if they take longer, in their order. */
  critical: string[]
  tasks: Scheduled[]
}

const same = (a: number, b: number) => Math.abs(a - b) < 1e-9

/** Everybody, each once, with the times they are there. */
function handsOf(people: NonNullable<AssemblyInput['people']>): Hand[] {
  const all = new Map<string, Hand>()
  for (const [i, p] of people.entries()) {
    if (p.to_min <= p.from_min)
      throw new Refusal('bad-input', `${p.id} leaves before coming; give the later time second.`, `people.${i}.to_min`)
    const before = all.get(p.id)
    all.set(p.id, {
      id: p.id,
      roles: [...new Set([...(before?.roles ?? []), ...p.roles])],
      there: [...(before?.there ?? []), { from_min: p.from_min, to_min: p.to_min }],
    })
  }
  return [...all.values()]
}

/** What no schedule could mend. */
function refuseHopeless({ tasks, assist }: AssemblyInput, hands: readonly Hand[] | null): void {
  for (const [i, t] of tasks.entries()) {
    const { low, likely, high } = t.minutes
    if (low > likely || likely > high)
      throw new Refusal(
        'bad-input',
        'Give the shortest time, the likely one, and the longest, in this order.',
        `tasks.${i}.minutes`,
      )
    if (t.done && t.done.to_min < t.done.from_min)
      throw new Refusal('bad-input', 'It ended before it began; give the later time second.', `tasks.${i}.done.to_min`)
    if (t.resource === 'assist' && !t.done) {
      if (!assist?.available)
        throw new Refusal('no-assist', `“${t.label}” takes an assist crane, and there is none.`, `tasks.${i}.resource`)
      if (t.lifted_kg !== undefined && t.lifted_kg > assist.rated_kg)
        throw new Refusal(
          'assist-too-small',
          `“${t.label}” lifts ${t.lifted_kg} kg; the assist crane may lift ${assist.rated_kg} kg.`,
          `tasks.${i}.lifted_kg`,
        )
    }
    if (hands && !t.done && crewOf(hands, t.people, t.roles) === null)
      throw new Refusal('not-enough-people', `“${t.label}” takes ${t.people}, and they are not all there.`, `tasks.${i}.people`)
  }
}

interface Run {
  task: AssemblyTask
  from_min: number
  to_min: number
  crew: Hand[]
}

/** Whether a task can go on from a moment beside what goes on already, and who does it. */
function fits(
  t: AssemblyTask,
  from_min: number,
  to_min: number,
  runs: readonly Run[],
  hands: readonly Hand[] | null,
  input: AssemblyInput,
) {
  const beside = runs.filter((r) => r.from_min < to_min && from_min < r.to_min)
  const taken = (of: (x: AssemblyTask) => string | null | undefined) => of(t) && beside.some((r) => of(r.task) === of(t))
  if (taken((x) => x.resource) || taken((x) => x.space)) return null
  if (t.resource === 'assist' && (input.assist?.from_min ?? 0) > from_min) return null
  if (!hands) return []
  const busy = new Set(beside.flatMap((r) => r.crew))
  return crewOf(
    hands.filter((h) => !busy.has(h) && isThere(h, from_min, to_min)),
    t.people,
    t.roles,
  )
}

/**
 * Tasks one beside another as far as people, cranes and room go: at each moment, of those that may begin, the one that can wait least first; ties by id.
 *
 * @throws Refusal `never-free` naming a task that nobody is ever free for
 */
function scheduled(input: AssemblyInput, hands: readonly Hand[] | null, end: End): Run[] {
  const tasks = inOrder(input.tasks)
  const long = (t: AssemblyTask) => (t.done ? t.done.to_min - t.done.from_min : t.minutes[end])
  const { times } = criticalPath(tasks.map((t) => ({ id: t.id, needs: t.needs, minutes: long(t) })))
  const latest = (t: AssemblyTask) => times.get(t.id)?.latest_min ?? 0
  const runs: Run[] = tasks.flatMap((task) => (task.done ? [{ task, ...task.done, crew: [] }] : []))
  const left = tasks.filter((t) => !t.done).toSorted((a, b) => latest(a) - latest(b) || (a.id < b.id ? -1 : 1))
  const comes = [0, ...(hands ?? []).flatMap((h) => h.there.map((x) => x.from_min)), input.assist?.from_min ?? 0]
  let now_min = 0
  while (left.length > 0) {
    const ended = new Set(runs.filter((r) => r.to_min <= now_min + 1e-9).map((r) => r.task.id))
    for (let i = 0; i < left.length; i++) {
      const task = nth(left, i)
      const to_min = now_min + long(task)
      const crew = task.needs.every((n) => ended.has(n)) ? fits(task, now_min, to_min, runs, hands, input) : null
      if (!crew) continue
      runs.push({ task, from_min: now_min, to_min, crew })
      left.splice(i, 1)
      // What takes no time has ended as it begins: whoever waited for it is asked again.
      if (to_min === now_min) ended.add(task.id)
      i = to_min === now_min ? -1 : i - 1
    }
    if (left.length === 0) break
    const later = [...runs.map((r) => r.to_min), ...comes].filter((m) => m > now_min + 1e-9)
    if (later.length === 0) {
      const stuck = nth(left, 0)
      const at = input.tasks.findIndex((t) => t.id === stuck.id)
      throw new Refusal('never-free', `Nobody is there long enough for “${stuck.label}”.`, `tasks.${at}`)
    }
    now_min = Math.min(...later)
  }
  return runs
}

/**
 * Putting a machine together: the critical path, and a schedule that keeps people, roles, breaks, one crane, one assist crane and one task at a place.
 * It says when; what each step of the order needs stays as it is.
 *
 * @returns minutes from the beginning of the work
 * @throws Refusal naming the field: an unknown task, a circle, too few people, no assist crane
 */
export function assemblyPlan(input: AssemblyInput): AssemblyPlan {
  const hands = input.people ? handsOf(input.people) : null
  refuseHopeless(input, hands)
  const timesBy = (end: End) =>
    criticalPath(
      input.tasks.map((t) => ({ id: t.id, needs: t.needs, minutes: t.done ? t.done.to_min - t.done.from_min : t.minutes[end] })),
    )
  const runsBy = Object.fromEntries(ends.map((end) => [end, scheduled(input, hands, end)])) as Record<End, Run[]>
  const by = (of: (end: End) => number) => ({ low: of('low'), likely: of('likely'), high: of('high') })
  const { times } = timesBy('likely')
  const tasks = inOrder(input.tasks).map(({ id }) => {
    const run = runsBy.likely.find((r) => r.task.id === id)
    const time = times.get(id)
    if (!run || !time) throw new RangeError(`no run of ${id}`)
    return { id, ...time, start_min: run.from_min, finish_min: run.to_min, people: run.crew.map((h) => h.id) }
  })
  return {
    unlimited_min: by((end) => timesBy(end).end_min),
    finish_min: by((end) => Math.max(0, ...runsBy[end].map((r) => r.to_min))),
    critical: tasks.filter((t) => same(t.float_min, 0)).map((t) => t.id),
    tasks,
  }
}
