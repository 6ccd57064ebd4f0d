import { z } from 'zod'

const step = z.strictObject({
  id: z.string().min(1),
  label: z.string().min(1),
  detail: z.string().optional(),
  /** What goes wrong when it is done out of turn, or not at all. */
  caution: z.string().optional(),
  /** What a confirmed step vouches for in an assessment. */
  proves: z.enum(['bubble']).optional(),
  /** In which ways of standing it is done; left out: in every one. */
  standing: z.array(z.string().min(1)).min(1).optional(),
  /** Steps that must be true first; omitted: every step before it in the list. */
  after: z.array(z.string()).optional(),
})

/** A written sequence. A step cannot be confirmed before what it rests on. */
export const procedure = z.array(step).superRefine((steps, ctx) => {
  const before = new Set<string>()
  steps.forEach((s, i) => {
    if (before.has(s.id)) ctx.addIssue({ code: 'custom', path: [i, 'id'], message: 'Two steps have this id.' })
    for (const id of s.after ?? []) {
      if (!before.has(id)) ctx.addIssue({ code: 'custom', path: [i, 'after'], message: `“${id}” is not a step before this one.` })
    }
    before.add(s.id)
  })
})
export type Procedure = z.infer<typeof procedure>
export type Step = Procedure[number]

/** The steps of a sequence that are done in a way of standing; undefined: the machine has only one. */
export const stepsIn = (steps: Procedure, state: string | undefined): Procedure =>
  steps.filter((s) => s.standing === undefined || state === undefined || s.standing.includes(state))

/**
 * The steps of one lift: the machine's own in this way of standing, and before all of them one for each place where people walk that is
 * closed while the load is up.
 *
 * @param labelOf what the place calls it; its id where it is no longer drawn
 */
export const stepsOfLift = (
  steps: Procedure,
  state: string | undefined,
  closes: readonly string[] | undefined,
  labelOf: (feature: string) => string,
): Procedure => [
  ...(closes ?? []).map((feature) => ({
    id: `closed:${feature}`,
    label: `${labelOf(feature)} closed, somebody there who keeps it closed`,
    after: [],
  })),
  ...stepsIn(steps, state),
]

/** The labels of what still has to be confirmed before a step can be; empty: it can. */
export function waitsFor(steps: Procedure, stepId: string, confirmed: ReadonlySet<string>): Step[] {
  const at = steps.findIndex((s) => s.id === stepId)
  const s = steps[at]
  if (!s) return []
  const needed = s.after ?? steps.slice(0, at).map((b) => b.id)
  return steps.filter((b) => needed.includes(b.id) && !confirmed.has(b.id))
}

/** Taking back a step takes back everything confirmed that rests on it. */
export function withoutStep(steps: Procedure, stepId: string, confirmed: ReadonlySet<string>): Set<string> {
  const left = new Set(confirmed)
  left.delete(stepId)
  for (const s of steps) if (left.has(s.id) && waitsFor(steps, s.id, left).length > 0) left.delete(s.id)
  return left
}
