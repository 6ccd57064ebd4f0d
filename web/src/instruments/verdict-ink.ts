import type { Verdict } from '@geolabe/core'

/** What a verdict is drawn with; never by its colour alone. */
export const verdictInk: Record<Verdict, string> = {
  inside: 'var(--inside)',
  near: 'var(--near)',
  outside: 'var(--outside)',
  'not-proven': 'var(--unproven)',
}
