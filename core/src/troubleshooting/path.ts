import { z } from 'zod'
import { nth } from '../list'
import { losing } from '../procedure/file'
import { finite } from '../quantity/measured'
import { codeId } from '../quantity/name-id'

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

/** What a way from a symptom can be told that nobody has to answer: the share of its rating that the lift in work takes, as it was proved. */
export const symptomFigure = z.enum(['share'])
export type SymptomFigures = Readonly<Record<z.infer<typeof symptomFigure>, number | null>>
const comparison = z.strictObject({
  id: z.string().min(1),
  figure: symptomFigure,
  /** The greatest with which it goes on at *yes*. */
  atMost: finite,
  yes: z.string().min(1),
  no: z.string().min(1),
  /** Where there is no such figure. */
  unknown: z.string().min(1),
})

const node = z.union([question, comparison, end])

/** A short way from a symptom in work to continue, stop or call. */
export const symptomPath = z
  .strictObject({
    id: codeId,
    symptom: z.string().min(1),
    /** The first node is where it begins. */
    nodes: z.array(node).min(2),
  })
  .superRefine((p, ctx) => {
    const ids = new Set(p.nodes.map((n) => n.id))
    if (ids.size < p.nodes.length) ctx.addIssue({ code: 'custom', path: ['nodes'], message: 'Two nodes have the same id.' })
    p.nodes.forEach((n, i) => {
      for (const [to, path] of onward(n)) {
        // Only onward: no path goes in a circle.
        if (p.nodes.findIndex((x) => x.id === to) <= i)
          ctx.addIssue({ code: 'custom', path: ['nodes', i, ...path], message: `“${to}” is not a node after this one.` })
      }
      if ('end' in n && n.end !== 'stop' && !n.cause) {
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
export type SymptomQuestion = z.infer<typeof question>
export type SymptomEnd = z.infer<typeof end>

export const isEnd = (n: SymptomNode): n is SymptomEnd => 'end' in n

/** Where a node can lead, each with its place in the node. */
function onward(n: z.infer<typeof node>): [to: string, path: (string | number)[]][] {
  if ('ask' in n) return n.answers.map((a, i) => [a.to, ['answers', i, 'to']])
  return 'figure' in n ? (['yes', 'no', 'unknown'] as const).map((k) => [n[k], [k]]) : []
}

/** What a comparison comes to. */
const compared = ({ figure, atMost }: z.infer<typeof comparison>, figures: SymptomFigures): 'yes' | 'no' | 'unknown' => {
  const v = figures[figure]
  if (v === null) return 'unknown'
  return v <= atMost ? 'yes' : 'no'
}

/**
 * Where the answers given lead; the answers are labels, in order. What is compared answers itself.
 *
 * @param figures what is known of the lift in work; null: nothing
 */
export function follow(
  p: SymptomPath,
  answers: readonly string[],
  figures: SymptomFigures,
): Exclude<SymptomNode, { figure: unknown }> {
  const named = (id: string) => p.nodes.find((n) => n.id === id)
  const resting = (n: SymptomNode): Exclude<SymptomNode, { figure: unknown }> => {
    if (!('figure' in n)) return n
    const to = named(n[compared(n, figures)])
    if (!to) throw new RangeError(`${p.id}: “${n.id}” leads nowhere.`)
    return resting(to)
  }
  let at = resting(nth(p.nodes, 0))
  for (const label of answers) {
    if (isEnd(at)) break
    const to = at.answers.find((a) => a.label === label)?.to
    const next = to === undefined ? undefined : named(to)
    if (!next) break
    at = resting(next)
  }
  return at
}
