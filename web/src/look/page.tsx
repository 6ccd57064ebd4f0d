import clsx from 'clsx'
import { type ReactNode, useEffect } from 'react'
import { ApiError } from '../api/client'
import { t, told } from '../language/t'

export function Title({ children, below }: { children: string; below?: ReactNode }) {
  useEffect(() => {
    document.title = t`${children} · Geolabe`
  }, [children])
  return (
    <header className="mb-4">
      <h1>{children}</h1>
      {below && <p className="mt-1 text-quiet">{below}</p>}
    </header>
  )
}

export function Sheet({ title, children, className }: { title?: string; children: ReactNode; className?: string }) {
  return (
    <section className={clsx('rounded-xl border border-line bg-sheet p-4', className)}>
      {title && <h2 className="mb-3">{title}</h2>}
      {children}
    </section>
  )
}

/** Low on the screen, under the thumb: why not yet, and the next thing to do. */
export function ActionBar({ children, why }: { children: ReactNode; why?: ReactNode }) {
  return (
    <div className="sticky bottom-0 z-20 bleed mt-auto border-t-2 border-ink bg-paper pt-2 pb-[max(0.6rem,env(safe-area-inset-bottom))]">
      <div className="mx-auto flex max-w-6xl flex-wrap items-center justify-end gap-x-4 gap-y-2 max-sm:flex-col max-sm:items-stretch max-sm:gap-y-1">
        {why && <p className="min-w-0 grow basis-60 text-quiet max-sm:basis-auto">{typeof why === 'string' ? told(why) : why}</p>}
        {children}
      </div>
    </div>
  )
}

/** What was refused, why, and how to put it right. */
export function Refused({ error }: { error: unknown }) {
  if (!error) return null
  const said =
    error instanceof ApiError
      ? error.body
      : { message: error instanceof Error ? error.message : String(error), impediments: undefined }
  return (
    <div role="alert" className="rounded-lg border-2 border-outside bg-sheet">
      <div className="h-2 hatch-outside" />
      <div className="p-3">
        <p className="font-bold text-outside">{told(said.message)}</p>
        {said.impediments?.map((b) => (
          <p key={b.code} className="mt-2">
            {told(b.why)} <span className="font-semibold">{told(b.resolution)}</span>
          </p>
        ))}
      </div>
    </div>
  )
}

/** The three states of something fetched. */
export function Loaded<T>({
  query,
  children,
}: {
  query: { data: T | undefined; error: unknown; isPending: boolean; refetch: () => unknown }
  children: (data: T) => ReactNode
}) {
  if (query.data !== undefined) return <>{children(query.data)}</>
  if (query.error) {
    return (
      <div className="space-y-3">
        <Refused error={query.error} />
        <button
          type="button"
          className="min-h-12 rounded-lg border-2 border-ink px-4 font-semibold"
          onClick={() => query.refetch()}
        >{t`Try again`}</button>
      </div>
    )
  }
  return (
    <div className="space-y-3" role="status" aria-label={t`Reading the records`}>
      {[90, 70, 80].map((w) => (
        <div key={w} className="h-16 animate-pulse rounded-xl bg-sunk" style={{ width: `${w}%` }} />
      ))}
    </div>
  )
}
