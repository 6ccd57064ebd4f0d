import type { Verdict } from '@geolabe/core'
import clsx from 'clsx'
import { verdictWords } from '../language/words'

export const verdictTone: Record<Verdict, { text: string; bg: string; hatch: string; border: string }> = {
  inside: { text: 'text-inside', bg: 'bg-inside', hatch: 'hatch-inside', border: 'border-inside' },
  near: { text: 'text-near', bg: 'bg-near', hatch: 'hatch-near', border: 'border-near' },
  outside: { text: 'text-outside', bg: 'bg-outside', hatch: 'hatch-outside', border: 'border-outside' },
  'not-proven': { text: 'text-unproven', bg: 'bg-unproven', hatch: 'hatch-unproven', border: 'border-unproven' },
}

/** A shape for each verdict: a full disc, a striped lozenge, a crossed square, an open dotted ring. */
export function VerdictMark({ verdict, size = 24 }: { verdict: Verdict; size?: number }) {
  return (
    <svg
      viewBox="0 0 24 24"
      width={size}
      height={size}
      aria-hidden="true"
      className={clsx('shrink-0', verdictTone[verdict].text)}
    >
      {verdict === 'inside' && <circle cx="12" cy="12" r="10" fill="currentColor" />}
      {verdict === 'near' && (
        <>
          <path d="M12 1 23 12 12 23 1 12Z" fill="none" stroke="currentColor" strokeWidth="2.4" />
          <path d="M12 5v14M8 9v6M16 9v6" stroke="currentColor" strokeWidth="2.6" />
        </>
      )}
      {verdict === 'outside' && (
        <>
          <rect x="1.5" y="1.5" width="21" height="21" fill="currentColor" />
          <path d="M6 6l12 12M18 6 6 18" stroke="var(--on-verdict)" strokeWidth="3" />
        </>
      )}
      {verdict === 'not-proven' && (
        <circle cx="12" cy="12" r="9.5" fill="none" stroke="currentColor" strokeWidth="3" strokeDasharray="4 3.46" />
      )}
    </svg>
  )
}

export function VerdictWord({ verdict }: { verdict: Verdict }) {
  return (
    <span className={clsx('inline-flex items-center gap-2 font-bold', verdictTone[verdict].text)}>
      <VerdictMark verdict={verdict} size={18} />
      {verdictWords[verdict].short}
    </span>
  )
}

/** How much of a limit is used, drawn to where the limit is; the verdict's hatch fills it. */
export function UseBar({ verdict, share }: { verdict: Verdict; share: number }) {
  const shown = Math.min(share, 1.25) / 1.25
  return (
    <span className="relative block h-3 w-full overflow-hidden rounded-sm border border-edge bg-sheet" aria-hidden="true">
      <span className={clsx('absolute inset-y-0 left-0', verdictTone[verdict].hatch)} style={{ width: `${shown * 100}%` }} />
      <span className="absolute inset-y-0 w-0.5 bg-ink" style={{ left: '80%' }} />
    </span>
  )
}
