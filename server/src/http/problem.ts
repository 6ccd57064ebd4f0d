import type { ProblemBody } from '@geolabe/contract'
import type { Bar } from '@geolabe/core'
import { Refusal } from '@geolabe/core'

/** A refusal with its HTTP status: what is wrong, with which field, and how to mend it. */
export class Problem extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    message: string,
    readonly path = '',
    readonly bars?: readonly Bar[],
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
  '23503': () => new Problem(422, 'unknown-reference', 'Something this refers to does not exist here.'),
}

const databaseDown = new Set(['ECONNREFUSED', 'ECONNRESET', 'EPIPE', '57P01', '57P03', '08006', '08001', '53300'])

/** What went wrong as an answer; what is not foreseen says so and is logged by the caller. */
export function asProblem(e: unknown): Problem | null {
  if (e instanceof Problem) return e
  if (e instanceof Refusal) return new Problem(422, e.code, e.message, e.path)
  if (typeof e === 'object' && e !== null) {
    const { code, constraint, message, type } = e as { code?: string; constraint?: string; message?: string; type?: string }
    if (constraint === 'returned_by_another') {
      return new Problem(403, 'own-repair', 'You recorded this repair; somebody else has to return the machine to service.')
    }
    if (constraint === 'verified_by_another') {
      return new Problem(403, 'own-repair', 'You recorded this repair; somebody else has to look at it.')
    }
    if (constraint === 'returned_after_check') {
      return new Problem(
        409,
        'not-verified',
        'The repair has to be recorded, and looked at by another, before the machine goes back.',
      )
    }
    if (constraint === 'only_watch_is_kept') {
      return new Problem(409, 'stops-machine', 'What stops a machine is repaired; it cannot be watched or accepted as it is.')
    }
    if (constraint === 'shift_one_open') return known.GL002?.() ?? null
    const made = code === undefined ? undefined : known[code]
    if (made) return made()
    if (
      (code && databaseDown.has(code)) ||
      /connection terminated|timeout exceeded when trying to connect|terminating connection/i.test(message ?? '')
    ) {
      return new Problem(
        503,
        'database-away',
        'The records cannot be reached just now. What you entered stays on this device and is sent again.',
      )
    }
    if (type === 'entity.parse.failed') return new Problem(400, 'not-json', 'This is not readable JSON.')
    if (type === 'entity.too.large' || code === 'LIMIT_FILE_SIZE')
      return new Problem(413, 'too-large', 'This is too large to take.')
  }
  return null
}

export function problemBody(p: Problem): ProblemBody {
  return { error: { code: p.code, message: p.message, path: p.path, ...(p.bars ? { bars: [...p.bars] } : {}) } }
}
