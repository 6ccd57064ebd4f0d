import { z } from 'zod'
import { nth } from '../list'
import { losing } from '../procedure/file'

const end = z.strictObject({
  id: z.string().min(1),
  end: z.enum(['continue', 'stop', 'call']),
  words: z.string().min(1),
  /** What was found to be the cause; without one a path can only end in a stop. */
  cause: z.string().min(1).optional(),
  /** What does not hold any more when it ends so: a trial after a drift, the level after a knock. */
  loses: z.array(losing).default([]),
})
const question = z.strictObject({
  id: z.string().min(1),
  ask: z.string().min(1),
  answers: z.array(z.strictObject({ label: z.string().min(1), to: z.string().min(1) })).min(2),
})

/** A short way from a symptom in work to continue, stop or call. */
export const symptomPath = z
  .strictObject({
    id: z.string().regex(/^[a-z0-9][a-z0-9-]*$/, 'Small letters, figures and hyphens.'),
    symptom: z.string().min(1),
    /** The first node is where it begins. */
    nodes: z.array(z.union([question, end])).min(2),
  })
  .superRefine((p, ctx) => {
    const ids = new Set(p.nodes.map((n) => n.id))
    if (ids.size < p.nodes.length) ctx.addIssue({ code: 'custom', path: ['nodes'], message: 'Two nodes have the same id.' })
    p.nodes.forEach((n, i) => {
      if ('ask' in n) {
        n.answers.forEach((a, j) => {
          const to = p.nodes.findIndex((x) => x.id === a.to)
          // Only onward: no path goes in a circle.
          if (to <= i) {
            ctx.addIssue({
              code: 'custom',
              path: ['nodes', i, 'answers', j, 'to'],
              message: `“${a.to}” is not a node after this one.`,
            })
          }
        })
      } else if (n.end !== 'stop' && !n.cause) {
        ctx.addIssue({
          code: 'custom',
          path: ['nodes', i, 'cause'],
          message: 'A path that ends without a cause stops the machine.',
        })
      }
    })
  })
export type SymptomPath = z.infer<typeof symptomPath>
export type SymptomNode = SymptomPath['nodes'][number]
export type SymptomEnd = z.infer<typeof end>

export const isEnd = (n: SymptomNode): n is SymptomEnd => 'end' in n

/** Where the answers given lead; the answers are labels, in order. */
export function follow(p: SymptomPath, answers: readonly string[]): SymptomNode {
  let at = nth(p.nodes, 0)
  for (const label of answers) {
    if (isEnd(at)) break
    const to = at.answers.find((a) => a.label === label)?.to
    const next = p.nodes.find((n) => n.id === to)
    if (!next) break
    at = next
  }
  return at
}
