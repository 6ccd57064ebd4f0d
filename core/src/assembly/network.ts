import { nth } from '../list'
import { Refusal } from '../refusal'

/** A piece of work that takes so long and waits for others. */
export interface Activity {
  id: string
  needs: readonly string[]
  minutes: number
}

/** When an activity can begin and end at the soonest and the latest without putting off the end of all. */
export interface Timed {
  earliest_min: number
  latest_min: number
  /** How long it may be put off. None: it is on the critical path. */
  float_min: number
}

/**
 * Activities in an order in which each comes after what it waits for; of several that could come next the first as given.
 *
 * @throws Refusal `unknown-task`, `same-id` or `circle`, naming the task
 */
export function inOrder<A extends Pick<Activity, 'id' | 'needs'>>(tasks: readonly A[]): A[] {
  const place = new Map(tasks.map((a, i) => [a.id, i] as const).toReversed())
  for (const [i, a] of tasks.entries()) {
    if (place.get(a.id) !== i)
      throw new Refusal('same-id', `Two tasks are called ${a.id}; give each a name of its own.`, `tasks.${i}.id`)
    const unknown = a.needs.find((n) => !place.has(n))
    if (unknown !== undefined)
      throw new Refusal('unknown-task', `It waits for “${unknown}”, which is not a task here.`, `tasks.${i}.needs`)
  }
  const done = new Set<string>()
  const ordered: A[] = []
  while (ordered.length < tasks.length) {
    const ready = tasks.find((a) => !done.has(a.id) && a.needs.every((n) => done.has(n)))
    if (!ready) {
      const stuck = tasks.findIndex((a) => !done.has(a.id))
      throw new Refusal(
        'circle',
        `“${nth(tasks, stuck).id}” waits for itself, by way of what it waits for.`,
        `tasks.${stuck}.needs`,
      )
    }
    done.add(ready.id)
    ordered.push(ready)
  }
  return ordered
}

/**
 * The critical path: each activity as soon as what it waits for is done, and how long it could be put off.
 *
 * @returns by id; `end_min` is when the last one ends
 * @throws Refusal as `inOrder`
 * @example criticalPath([{ id: 'a', needs: [], minutes: 90 }, { id: 'b', needs: ['a'], minutes: 60 }]).end_min // 150
 */
export function criticalPath(tasks: readonly Activity[]): { end_min: number; times: ReadonlyMap<string, Timed> } {
  const ordered = inOrder(tasks)
  const starts = new Map<string, number>()
  const ends = new Map<string, number>()
  for (const a of ordered) {
    const start = Math.max(0, ...a.needs.map((n) => ends.get(n) ?? 0))
    starts.set(a.id, start)
    ends.set(a.id, start + a.minutes)
  }
  const end_min = Math.max(0, ...ends.values())
  const latest = new Map<string, number>()
  for (const a of ordered.toReversed()) {
    const before = ordered.filter((x) => x.needs.includes(a.id)).map((x) => latest.get(x.id) ?? end_min)
    latest.set(a.id, Math.min(end_min, ...before) - a.minutes)
  }
  const times = ordered.map(({ id }) => {
    const [earliest_min, latest_min] = [starts.get(id) ?? 0, latest.get(id) ?? 0]
    return [id, { earliest_min, latest_min, float_min: latest_min - earliest_min }] as const
  })
  return { end_min, times: new Map(times) }
}
