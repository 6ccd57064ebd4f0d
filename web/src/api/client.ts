import type { ProblemBody } from '@geolabe/contract'
import { t } from '../language/t'

/** The server's refusal, or no answer at all (status 0). */
export class ApiError extends Error {
  constructor(
    readonly status: number,
    readonly body: ProblemBody['error'],
  ) {
    super(body.message)
  }

  /** Nobody has decided against it: sending the same again may still succeed. */
  get retryable(): boolean {
    return this.status === 0 || this.status >= 500 || this.status === 408
  }
}

const away: ProblemBody['error'] = {
  code: 'away',
  message: t`No connection to the records. What you entered stays on this device and is sent again.`,
  path: '',
}

/** The refusal in an answer; null: it is not one of ours, as from something between here and the server. */
function saidIn(answer: unknown): ProblemBody['error'] | null {
  if (typeof answer !== 'object' || answer === null || !('error' in answer)) return null
  const { error } = answer
  if (typeof error !== 'object' || error === null) return null
  const { code, message, path } = error as Record<string, unknown>
  return typeof code === 'string' && typeof message === 'string' && typeof path === 'string'
    ? (error as ProblemBody['error'])
    : null
}

export interface Send {
  method: 'GET' | 'POST' | 'PUT' | 'DELETE'
  path: string
  body?: unknown
  /** Client-made id of a write. */
  key?: string
}

export async function call<T>({ method, path, body, key }: Send): Promise<T> {
  const form = body instanceof Blob ? new FormData() : null
  if (form && body instanceof Blob) form.append('photo', body, 'photo.jpg')
  let r: Response
  try {
    r = await fetch(`/api${path}`, {
      method,
      headers: {
        'x-geolabe': '1',
        // Lets the server set right what a wrong clock noted.
        'x-geolabe-clock': new Date().toISOString(),
        ...(key ? { 'idempotency-key': key } : {}),
        ...(body === undefined || form ? {} : { 'content-type': 'application/json' }),
      },
      ...(body === undefined ? {} : { body: form ?? JSON.stringify(body) }),
    })
  } catch {
    throw new ApiError(0, away)
  }
  const answer: unknown = await r.json().catch(() => null)
  if (r.ok) return answer as T
  throw new ApiError(r.status, saidIn(answer) ?? { ...away, code: `http-${r.status}` })
}

export const get = <T>(path: string) => call<T>({ method: 'GET', path })
/** Made once for this device: what another one said about the same item is not overwritten unseen. */
export const deviceId = (() => {
  let kept: string | null = null
  return (): string => {
    if (kept) return kept
    try {
      kept = localStorage.getItem('geolabe.device')
      if (!kept) {
        kept = crypto.randomUUID()
        localStorage.setItem('geolabe.device', kept)
      }
    } catch {
      kept ??= crypto.randomUUID()
    }
    return kept
  }
})()

export const newId = () => crypto.randomUUID()
