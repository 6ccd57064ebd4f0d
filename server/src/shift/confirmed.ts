import { Problem } from '../problem/problem'

/** What a list of confirmations is still short of is refused by name. */
export function requireAll(wanted: readonly { id: string; label: string }[], given: readonly string[], path: string): void {
  const missing = wanted.find((w) => !given.includes(w.id))
  if (missing) throw new Problem(422, 'not-confirmed', `Not confirmed yet: ${missing.label}.`, path)
}
