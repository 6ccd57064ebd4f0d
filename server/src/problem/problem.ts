import type { ProblemBody } from '@geolabe/contract'
import { plainIssue, Refusal } from '@geolabe/core'
import { ZodError, type z } from 'zod'

/** A further reason, and what would put it right. */
type Reason = NonNullable<ProblemBody['error']['impediments']>[number]

/** A refusal with its HTTP status: what is wrong, with which field, and how to put it right. */
export class Problem extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    message: string,
    readonly path = '',
    readonly impediments?: readonly Reason[],
    /** When to ask again, seconds; sent as Retry-After. */
    readonly retryAfter_s?: number,
  ) {
    super(message)
  }
}

const known: Record<string, () => Problem> = {
  GL001: () =>
    new Problem(
      409,
      'machine-stopped',
      'This machine is stopped. Nobody uses it until the person in charge returns it to service.',
    ),
  GL002: () => new Problem(409, 'machine-taken', 'Somebody else has this machine.'),
  GL003: () => new Problem(403, 'not-your-part', 'This step belongs to somebody else’s role.'),
  GL004: () => new Problem(409, 'wrong-state', 'This is not possible as things stand now. Look again and decide.'),
  GL005: () =>
    new Problem(403, 'not-authorised', 'No authorisation for this machine is on record. The person in charge can give it.'),
  GL006: () => new Problem(403, 'own-repair', 'You recorded this repair; somebody else has to do this.'),
  GL007: () => new Problem(409, 'stops-machine', 'What stops a machine is repaired; it cannot be watched or accepted as it is.'),
  GL008: () => new Problem(409, 'milder', 'A defect is never graded milder than it was.', 'grade'),
  GL009: () =>
    new Problem(409, 'exam-over', 'This exam is over: its tries are used, or its day has passed. The assessor can set another.'),
  GL010: () => new Problem(422, 'exam-differs', 'A run and its try are one; these are not.', 'id'),
  '42501': () => new Problem(403, 'not-your-part', 'This is not done from here.'),
  '23503': () => new Problem(422, 'unknown-reference', 'Something this refers to does not exist here.'),
}

/** SQLSTATEs of a database that cannot answer now: gone, starting, full, too busy, or stopped by a limit. */
const unavailable = /^(08|53|57P|57014|58|40001|40P01|55P03|25P0|XX)/
const socketGone = new Set(['ECONNREFUSED', 'ECONNRESET', 'EPIPE', 'ETIMEDOUT'])

export const databaseAway = () =>
  new Problem(
    503,
    'database-away',
    'The records cannot be reached just now. What you entered stays on this device and is sent again.',
  )

const byConstraint: Record<string, () => Problem> = {
  assessed_by_another: () => new Problem(403, 'own-exam', 'Nobody assesses themselves: choose somebody else.', 'person'),
  returned_by_another: () =>
    new Problem(403, 'own-repair', 'You recorded this repair; somebody else has to return the machine to service.'),
  verified_by_another: () => new Problem(403, 'own-repair', 'You recorded this repair; somebody else has to look at it.'),
  returned_after_check: () =>
    new Problem(409, 'not-verified', 'The repair has to be recorded, and looked at by another, before the machine goes back.'),
  only_watch_is_kept: () =>
    new Problem(409, 'stops-machine', 'What stops a machine is repaired; it cannot be watched or accepted as it is.'),
  shift_one_open: () => new Problem(409, 'machine-taken', 'Somebody else has this machine.'),
}

interface Thrown {
  code?: string
  constraint?: string
  message?: string
  type?: string
  status?: number
  statusCode?: number
}

/** What PostgreSQL says is wrong, as an answer. */
function bySqlState({ code = '', constraint, message = '' }: Thrown): Problem | null {
  const named = constraint === undefined ? undefined : byConstraint[constraint]
  if (named) return named()
  const own = known[code]
  if (own) return own()
  if (code === '23505') return new Problem(409, 'already-there', 'This is in the records already under the same name or id.')
  if (code === '23514' || code === '23502')
    return new Problem(422, 'bad-input', 'The records do not take this; check every figure.')
  if (/^(22|54)/.test(code)) return new Problem(422, 'bad-input', 'This holds a figure or a character that cannot be kept.')
  const gone = socketGone.has(code) || unavailable.test(code)
  return gone || /connection terminated|connection ended|timeout|terminating connection|client has encountered/i.test(message)
    ? databaseAway()
    : null
}

/** What the readers of a request say is wrong with it, as an answer. */
function byReader({ type = '', code = '', status, statusCode }: Thrown): Problem | null {
  if (type === 'entity.parse.failed') return new Problem(400, 'not-json', 'This is not readable JSON.')
  if (type === 'entity.too.large' || code === 'LIMIT_FILE_SIZE')
    return new Problem(413, 'too-large', 'This is too large to take.')
  if (type === 'charset.unsupported' || type === 'encoding.unsupported')
    return new Problem(415, 'unreadable', 'Send it as UTF-8 JSON, plain or with gzip.')
  if (code.startsWith('LIMIT_') || /multipart|boundary|unexpected end of form|malformed part/i.test(String(code)))
    return new Problem(400, 'bad-form', 'This is no form with one picture in the field “photo”.', 'photo')
  const said = status ?? statusCode
  return said !== undefined && said >= 400 && said < 500
    ? new Problem(said, 'bad-request', 'This request cannot be read; check its address, its headers and its body.')
    : null
}

/** What went wrong as an answer; what is not foreseen says so and is logged by the caller. */
export function asProblem(e: unknown): Problem | null {
  if (e instanceof Problem) return e
  if (e instanceof Refusal) return new Problem(422, e.code, e.message, e.path)
  if (e instanceof ZodError) {
    const { message, path } = plainIssue(e.issues[0] as z.core.$ZodIssue)
    return new Problem(422, 'bad-input', message, path)
  }
  if (e instanceof URIError) return new Problem(400, 'bad-address', 'This address cannot be read.')
  if (typeof e !== 'object' || e === null) return null
  const thrown = e as Thrown
  if (e instanceof Error && /^(Multipart|Malformed|Unexpected end of form)/i.test(e.message))
    return new Problem(400, 'bad-form', 'This is no form with one picture in the field “photo”.', 'photo')
  return byReader(thrown) ?? bySqlState(thrown)
}

export function problemBody(p: Problem): ProblemBody {
  return {
    error: { code: p.code, message: p.message, path: p.path, ...(p.impediments ? { impediments: [...p.impediments] } : {}) },
  }
}
