import type { ReactNode } from 'react'

/** What is still open, as a way to where it is put right. */
export function Lead({ onFollow, children }: { onFollow: () => void; children: ReactNode }) {
  return (
    <button type="button" className="min-h-12 text-left font-semibold underline underline-offset-4" onClick={onFollow}>
      {children}
    </button>
  )
}
