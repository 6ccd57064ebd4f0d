import type { Procedure, ProcedureFile, Step } from './file'

/** One step as it is printed: several alike once. */
export interface PaperStep {
  n: number
  words: string
  /** Detail and caution. */
  notes: string[]
  /** What breaks where it is not so first, with the number of the step that makes it so. */
  first: string[]
}

/** What there is several of, in the order in which it comes. */
function alike(steps: readonly Step[]): Step[][] {
  const groups: Step[][] = []
  for (const s of steps) {
    const last = groups.at(-1)
    if (s.member && last?.[0]?.member?.base === s.member.base) last.push(s)
    else groups.push([s])
  }
  return groups
}

/** The same for each: said once, and of which. */
function wordsOf(group: readonly Step[]): string {
  const [s] = group
  if (!s?.member) return s?.label ?? ''
  const all = group.map((x) => x.member?.label ?? '').join(', ')
  return s.label.includes(s.member.label) ? s.label.replace(s.member.label, all) : `${s.label}: ${all}`
}

/**
 * A procedure as it is read on paper: each step with what must be so before it. Nothing of it is a record.
 *
 * @example onPaper(machine.procedures.procedures[0]) // [{ n: 1, words: 'Parking brake on', notes: […], first: [] }, …]
 */
export function onPaper(p: Procedure): PaperStep[] {
  const groups = alike(p.steps)
  const numberOf = new Map(groups.flatMap((g, i) => g.map((s) => [s.id, i + 1] as const)))
  return groups.map((group, i) => {
    const [s] = group
    const needs = [...(s?.needs ?? []), ...(s?.two?.first ?? [])]
    const own = [
      ...(s?.detail === undefined ? [] : [s.detail]),
      ...(s?.caution === undefined ? [] : [s.caution]),
      ...(s?.two ? [`Two people: ${s.two.acts} acts, ${s.two.signals} signals.`] : []),
      ...(s?.hold ? [`${s.hold.watch ? 'Watched' : 'Held'} for ${s.hold.least_s} s.`] : []),
      ...(s?.signals.length ? [`Signals: ${s.signals.map((x) => x.means).join(', ')}.`] : []),
      ...(s?.measures ?? []).map((m) => `${m.ask}: ${m.how}`),
    ]
    const first = needs.map((n) => {
      const by = n.remedy === undefined ? undefined : numberOf.get(n.remedy)
      return by === undefined ? n.because : `${n.because} Step ${by}.`
    })
    return { n: i + 1, words: wordsOf(group), notes: own, first: [...new Set(first)] }
  })
}

/** What must never be, each said once. */
export const neversOf = (f: ProcedureFile): string[] => [...new Set(f.invariants.map((v) => v.because))]
