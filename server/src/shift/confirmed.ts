import { type Procedure, waitsFor } from '@geolabe/core'
import { Problem } from '../problem/problem'

/** What a list of confirmations is still short of is refused by name. */
export function requireAll(wanted: readonly { id: string; label: string }[], given: readonly string[], path: string): void {
  const missing = wanted.find((w) => !given.includes(w.id))
  if (missing) throw new Problem(422, 'not-confirmed', `Not confirmed yet: ${missing.label}.`, path)
}

/** Every step confirmed, and none before what it rests on. */
export function requireProcedure(steps: Procedure, confirmed: readonly string[], path: string): void {
  requireAll(steps, confirmed, path)
  const before = new Set<string>()
  for (const id of confirmed) {
    const waits = waitsFor(steps, id, before)[0]
    if (waits) {
      const label = steps.find((s) => s.id === id)?.label
      throw new Problem(422, 'out-of-order', `“${waits.label}” comes before “${label}”.`, path)
    }
    before.add(id)
  }
}
