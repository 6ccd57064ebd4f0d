import { nth } from '../list'
/** One finished round, as far as the question needs it. */
export interface InspectionFacts {
  id: string
  machine: string
  by: string
  at: string
  items: number
  /** From the first answer to the last. */
  duration_s: number
  defects: number
}

export interface MemoryPattern {
  kind: 'too-quick' | 'same-duration' | 'never-a-defect'
  machine: string
  by: string
  /** What the record shows; nothing is said about why. */
  fact: string
  rounds: string[]
}

/** A person who looks takes at least this long an item. */
const leastPerItem_s = 1.5
const sameWithin_s = 4
const sameTimes = 4
const quietDays = 90
const quietRounds = 20

/**
 * What in the record looks as if it were filled in from memory: everything in order faster than one can walk, the same time
 * to the second day after day, or never a defect in ninety days. Facts for the person in charge, not accusations: a quick
 * walker, a small machine and a good machine look alike.
 */
export function memoryPatterns(rounds: readonly InspectionFacts[], now: string): MemoryPattern[] {
  const found: MemoryPattern[] = []
  for (const own of groups(rounds).values()) {
    const { machine, by } = nth(own, 0)
    const quick = own.filter((r) => r.defects === 0 && r.items >= 10 && r.duration_s < leastPerItem_s * r.items)
    if (quick.length > 0) {
      const last = nth(quick, quick.length - 1)
      found.push({
        kind: 'too-quick',
        machine,
        by,
        fact: `${last.items} items all in order in ${Math.round(last.duration_s)} seconds${quick.length > 1 ? `; ${quick.length} rounds like it` : ''}.`,
        rounds: quick.map((r) => r.id),
      })
    }
    const run = longestSame(own)
    if (run.length >= sameTimes) {
      found.push({
        kind: 'same-duration',
        machine,
        by,
        fact: `${run.length} rounds one after another took the same time, within ${sameWithin_s} seconds.`,
        rounds: run.map((r) => r.id),
      })
    }
    const since = Date.parse(now) - quietDays * 86_400_000
    const recent = own.filter((r) => Date.parse(r.at) >= since)
    const covers = own.some((r) => Date.parse(r.at) <= since + 7 * 86_400_000)
    if (covers && recent.length >= quietRounds && recent.every((r) => r.defects === 0)) {
      found.push({
        kind: 'never-a-defect',
        machine,
        by,
        fact: `${recent.length} rounds in ${quietDays} days and not one defect.`,
        rounds: recent.map((r) => r.id),
      })
    }
  }
  return found
}

function groups(rounds: readonly InspectionFacts[]): Map<string, InspectionFacts[]> {
  const by = new Map<string, InspectionFacts[]>()
  for (const r of [...rounds].sort((a, b) => a.at.localeCompare(b.at))) {
    const key = `${r.machine} ${r.by}`
    by.set(key, [...(by.get(key) ?? []), r])
  }
  return by
}

function longestSame(rounds: readonly InspectionFacts[]): InspectionFacts[] {
  let best: InspectionFacts[] = []
  let run: InspectionFacts[] = []
  for (const r of rounds) {
    const all = [...run, r].map((x) => x.duration_s)
    run = Math.max(...all) - Math.min(...all) <= sameWithin_s ? [...run, r] : [r]
    if (run.length > best.length) best = run
  }
  return best
}
