import { assess } from '../assess/assess'
import type { Case } from '../lift/case'
import { nominal, type Tol } from '../quantity/measured'
import { Refusal } from '../refusal'

export interface DoubtfulInput {
  id: string
  /** How much of the governing limit's use this ± is answerable for: what its removal takes away. */
  share: number
}

/** The governing figure through its doubt: share of its limit with every ± at its best, left out, and at its worst. */
export interface Doubt {
  finding: string
  low: number
  nominal: number
  high: number
  /** Every measured input with a ±, the one that matters most first. */
  inputs: DoubtfulInput[]
}

interface Place {
  id: string
  get: (c: Case) => Tol | null
  set: (c: Case, v: Tol) => Case
}

/** Where an assessment takes a ±. */
function placesIn(c: Case): Place[] {
  const load = (key: 'mass_kg' | 'sailArea_m2'): Place => ({
    id: key === 'mass_kg' ? 'mass' : 'sail',
    get: (x) => x.lift.load[key],
    set: (x, v) => ({ ...x, lift: { ...x.lift, load: { ...x.lift.load, [key]: v } } }),
  })
  const end = (which: 'pick' | 'set'): Place => ({
    id: `${which}-radius`,
    get: (x) => x.lift[which].radius_m,
    set: (x, v) => ({ ...x, lift: { ...x.lift, [which]: { ...x.lift[which], radius_m: v } } }),
  })
  const level = (axis: 'pitch_deg' | 'roll_deg'): Place => ({
    id: axis === 'pitch_deg' ? 'pitch' : 'roll',
    get: (x) => x.setup.level[axis],
    set: (x, v) => ({ ...x, setup: { ...x.setup, level: { ...x.setup.level, [axis]: v } } }),
  })
  const rigging = c.lift.rigging.map(
    (_, i): Place => ({
      id: `rigging-${i}`,
      get: (x) => x.lift.rigging[i]?.mass_kg ?? null,
      set: (x, v) => ({ ...x, lift: { ...x.lift, rigging: x.lift.rigging.map((r, j) => (j === i ? { ...r, mass_kg: v } : r)) } }),
    }),
  )
  const wind: Place = {
    id: 'wind',
    get: (x) => x.conditions.wind_mps,
    set: (x, v) => ({ ...x, conditions: { ...x.conditions, wind_mps: v } }),
  }
  return [load('mass_kg'), load('sailArea_m2'), end('pick'), end('set'), ...rigging, wind, level('pitch_deg'), level('roll_deg')]
}

/**
 * What the ± of the inputs does to the figure that governs, and which measurement matters most. Null where nothing that governs
 * has a figure, or no input has a ±.
 */
export function doubtOf(c: Case): Doubt | null {
  const use = (x: Case, id: string): number | null => {
    try {
      return assess(x).findings.find((f) => f.id === id)?.utilisation ?? null
    } catch (e) {
      if (e instanceof Refusal) return null
      throw e
    }
  }
  const governing = assess(c).governing
  if (!governing || governing.utilisation === null) return null
  const doubtful = placesIn(c).filter((p) => {
    const v = p.get(c)
    return v !== null && typeof v !== 'number' && v.tolerance > 0
  })
  if (doubtful.length === 0) return null
  const high = governing.utilisation
  const flat = (x: Case, p: Place) => p.set(x, nominal(p.get(x) as Tol))
  const inputs = doubtful.map((p) => ({ id: p.id, share: Math.max(0, high - (use(flat(c, p), governing.id) ?? high)) }))
  const plain = doubtful.reduce(flat, c)
  const middle = use(plain, governing.id) ?? high
  // Each at whichever end uses less, one after another.
  const best = doubtful.reduce((x, p) => {
    const t = p.get(c) as { value: number; tolerance: number }
    const ends = [p.set(x, t.value - t.tolerance), p.set(x, t.value + t.tolerance)]
    const uses = ends.map((e) => use(e, governing.id) ?? Infinity)
    return (uses[0] as number) <= (uses[1] as number) ? (ends[0] as Case) : (ends[1] as Case)
  }, plain)
  return {
    finding: governing.id,
    low: Math.min(use(best, governing.id) ?? middle, middle),
    nominal: middle,
    high,
    inputs: inputs.sort((a, b) => b.share - a.share),
  }
}

/** The inputs in words. */
export function doubtWords(id: string): string {
  const words: Record<string, string> = {
    mass: 'the load’s mass',
    sail: 'the load’s sail area',
    'pick-radius': 'the radius at pick-up',
    'set-radius': 'the radius at set-down',
    wind: 'the wind',
    pitch: 'the level along',
    roll: 'the level across',
  }
  return words[id] ?? 'the rigging’s mass'
}
