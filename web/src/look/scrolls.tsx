import { clsx } from 'clsx'
import type { ReactNode } from 'react'

/** What may be longer than its place and has no key in it: scrolled by arrow keys too. */
export function Scrolls({ label, className, children }: { label: string; className?: string; children: ReactNode }) {
  return (
    // biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls has to be reached by keyboard
    <section aria-label={label} tabIndex={0} className={clsx('overflow-y-auto', className)}>
      {children}
    </section>
  )
}
