import type { Verdict } from '../finding/finding'

/** The four verdicts in words. Never “safe”. */
export const verdictWords: Record<Verdict, { short: string; long: string }> = {
  inside: { short: 'inside', long: 'Inside the limits checked' },
  near: { short: 'near', long: 'Near a limit' },
  outside: { short: 'outside', long: 'Outside the limits' },
  'not-proven': { short: 'not proven', long: 'Not proven' },
}
