import type { z } from 'zod'
import type { RefusalBody } from '../refusal'

/** A figure, words or list beyond its bounds, in plain words; a schema's own words come before these. */
export function plainBounds(issue: z.core.$ZodRawIssue): string | undefined {
  if (issue.code !== 'too_small' && issue.code !== 'too_big') return undefined
  const least = issue.code === 'too_small'
  const bound = least ? issue.minimum : issue.maximum
  if (issue.origin === 'string')
    return least && Number(bound) === 1 ? 'Write something here.' : `${least ? 'At least' : 'At most'} ${bound} characters.`
  if (issue.origin === 'array') return `${least ? 'At least' : 'At most'} ${bound} entries.`
  return issue.inclusive === false ? `${least ? 'More' : 'Less'} than ${bound}.` : `${least ? 'At least' : 'At most'} ${bound}.`
}

/** One zod issue in plain words; of a union the branch that came nearest is reported. */
export function plainIssue(issue: z.core.$ZodIssue, above: PropertyKey[] = []): RefusalBody['error'] {
  const path = [...above, ...issue.path]
  if (issue.code === 'invalid_union' && issue.errors.length > 0) {
    const depth = (branch: z.core.$ZodIssue[]) => Math.max(...branch.map((i) => i.path.length))
    const nearest = [...issue.errors].sort((a, b) => depth(b) - depth(a))[0]
    const inner = nearest?.[0]
    if (inner) return plainIssue(inner, path)
  }
  const at = path.map(String).join('.')
  if (issue.code === 'unrecognized_keys') {
    const key = issue.keys[0] ?? ''
    return {
      code: 'unknown-field',
      message: `Unknown field “${key}”; leave it out or correct its name.`,
      path: at === '' ? key : `${at}.${key}`,
    }
  }
  if (issue.code === 'invalid_type' && issue.input === undefined) {
    return { code: 'missing-field', message: `${at || 'The input'} is missing; give a ${issue.expected}.`, path: at }
  }
  return { code: 'bad-input', message: issue.message, path: at }
}
