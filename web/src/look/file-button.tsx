import type { ReactNode } from 'react'

/** A file of one's own, chosen by a button; the same one can be chosen again. */
export function FileButton({ children, accept, onFile }: { children: ReactNode; accept: string; onFile: (file: File) => void }) {
  return (
    <label className="relative inline-flex min-h-12 w-fit cursor-pointer items-center gap-2 rounded-lg border-2 border-ink bg-sheet px-4 font-semibold has-focus-visible:outline-3 has-focus-visible:outline-ink">
      {children}
      <input
        type="file"
        accept={accept}
        className="sr-only"
        onChange={(e) => {
          const file = e.target.files?.[0]
          e.target.value = ''
          if (file) onFile(file)
        }}
      />
    </label>
  )
}
