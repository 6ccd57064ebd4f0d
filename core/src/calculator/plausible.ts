/** Above these a figure is more likely a slip of its unit than a figure: the largest machines and loads there are, and then some. */
const largest: readonly [ending: RegExp, most: number, what: string][] = [
  [/_kg$/, 5_000_000, 'more than 5,000 t'],
  [/_N$/, 100_000_000, 'more than 100,000 kN'],
  [/_m$/, 2_000, 'more than 2 km'],
  [/_m2$/, 20_000, 'more than two hectares'],
  [/_kPa$/, 1_000_000, 'more than 1,000 MPa'],
  [/_mps$/, 120, 'more than any storm'],
  [/_mps2$/, 20, 'more than twice gravity'],
]

export interface Implausible {
  path: string
  message: string
}

/**
 * Figures of an input that no machine has: a mass given in grams, a length in millimetres. They are computed with all the same,
 * since only who gave them knows; they are said beside the answer.
 */
export function implausible(input: unknown, path = '', name = ''): Implausible[] {
  if (typeof input === 'number') {
    const found = largest.find(([ending, most]) => ending.test(name) && Math.abs(input) > most)
    return found ? [{ path, message: `This is ${found[2]}: check its unit.` }] : []
  }
  if (typeof input !== 'object' || input === null) return []
  return Object.entries(input).flatMap(([k, v]) => {
    const at = path === '' ? k : `${path}.${k}`
    // In a list, or as a ± figure, it is the owner's name that carries the unit.
    const own = Array.isArray(input) || ((k === 'value' || k === 'tolerance') && 'tolerance' in input)
    return implausible(v, at, own ? name : k)
  })
}
