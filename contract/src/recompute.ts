import { assess } from '@geolabe/core'
import type { ShiftFile } from './shift'

export interface Recomputed {
  lift: string
  equal: boolean
  /** Where it first differs, or what the file lacks. */
  at: string | null
}

/** Relative accuracy to which figures that were worked out on another machine agree. */
const agree = 1e-9

function firstDifference(a: unknown, b: unknown, path: string): string | null {
  if (typeof a === 'number' && typeof b === 'number')
    return Math.abs(a - b) <= agree * Math.max(1, Math.abs(a), Math.abs(b)) ? null : path
  if (typeof a !== 'object' || typeof b !== 'object' || a === null || b === null) return a === b ? null : path
  for (const k of new Set([...Object.keys(a), ...Object.keys(b)])) {
    const found = firstDifference(
      (a as Record<string, unknown>)[k],
      (b as Record<string, unknown>)[k],
      path === '' ? k : `${path}.${k}`,
    )
    if (found !== null) return found
  }
  return null
}

/**
 * Works every lift of a shift file out again from what the file itself holds, and compares it with what was recorded: findings,
 * verdict, every figure, to 1e-9.
 *
 * @example recompute(file).every((r) => r.equal)
 */
export function recompute(file: ShiftFile): Recomputed[] {
  return file.shift.lifts.map((lift) => {
    const { machine: m, place: p, tables } = lift.versions
    const machine = file.used.machines.find((x) => x.revision === m.revision)?.document
    const place = file.used.places.find((x) => x.revision === p.revision)?.document
    const used = tables.map((t) => file.used.tables.find((x) => x.id === t.id && x.revision === t.revision))
    const setup = file.shift.setups.find((s) => s.id === lift.setup)
    const lacks = !machine ? 'machine' : !place ? 'place' : used.includes(undefined) ? 'tables' : !setup ? 'set-up' : null
    if (lacks !== null || !machine || !place || !setup) return { lift: lift.id, equal: false, at: `the file has no ${lacks}` }
    try {
      const again = assess({
        machine,
        tables: used.filter((t) => t !== undefined),
        setup: setup.plan,
        lift: lift.plan,
        conditions: lift.conditions,
        place,
        policy: place.policy,
      })
      const plain = JSON.parse(JSON.stringify(again))
      const at = firstDifference(plain, JSON.parse(JSON.stringify(lift.assessment)), '')
      return { lift: lift.id, equal: at === null, at }
    } catch (e) {
      return { lift: lift.id, equal: false, at: e instanceof Error ? e.message : String(e) }
    }
  })
}
