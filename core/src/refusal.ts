/** What a calculator answers when it cannot: never NaN, never a silent default. */
export interface RefusalBody {
  error: { code: string; message: string; path: string }
}

/**
 * Thrown inside the core when an input cannot be used. `path` names the field ("supports.2.x_m"),
 * `message` says what is wrong and how to put it right. Carried over the wire as HTTP 422, by commands as exit status 2.
 */
export class Refusal extends Error {
  constructor(
    readonly code: string,
    message: string,
    readonly path = '',
  ) {
    super(message)
    this.name = 'Refusal'
  }

  get body(): RefusalBody {
    return { error: { code: this.code, message: this.message, path: this.path } }
  }
}

export function isRefusal(answer: unknown): answer is RefusalBody {
  return typeof answer === 'object' && answer !== null && 'error' in answer
}
