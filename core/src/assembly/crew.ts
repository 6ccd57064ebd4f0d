/** Somebody who can take part, from when to when. */
export interface Hand {
  id: string
  roles: readonly string[]
  /** When they are there, from the beginning of the work; a break ends one time and begins another. */
  there: readonly { from_min: number; to_min: number }[]
}

/** Whether somebody is there all through. */
export const isThere = (h: Hand, from_min: number, to_min: number): boolean =>
  h.there.some((x) => x.from_min <= from_min && to_min <= x.to_min)

/**
 * Who does a task: one for each role it asks for, and as many more as it takes. Those who can do least else are taken first. Null: not enough are free.
 *
 * @param free in the order they would be asked
 */
export function crewOf(free: readonly Hand[], people: number, roles: readonly string[]): Hand[] | null {
  const asked = free.toSorted((a, b) => a.roles.length - b.roles.length || (a.id < b.id ? -1 : 1))
  const held = new Map<Hand, number>()
  // Each role finds somebody, if need be by moving another role to somebody else.
  const seat = (role: number, tried: Set<Hand>): boolean => {
    for (const h of asked) {
      if (tried.has(h) || !h.roles.includes(roles[role] ?? '')) continue
      tried.add(h)
      const other = held.get(h)
      if (other === undefined || seat(other, tried)) {
        held.set(h, role)
        return true
      }
    }
    return false
  }
  if (!roles.every((_, i) => seat(i, new Set()))) return null
  const rest = asked.filter((h) => !held.has(h)).slice(0, Math.max(0, people - held.size))
  return held.size + rest.length < people ? null : [...held.keys(), ...rest]
}
