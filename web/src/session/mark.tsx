export function Wordmark() {
  return (
    <span className="inline-flex items-center gap-2 text-xl font-[800] tracking-tight">
      <svg viewBox="0 0 32 32" className="size-8" aria-hidden="true">
        <circle cx="15" cy="18.5" r="10" fill="none" stroke="currentColor" strokeWidth="2.6" />
        <path d="M15 18.5 25 3.5" stroke="currentColor" strokeWidth="2.6" strokeLinecap="round" />
        <circle cx="15" cy="18.5" r="3.4" fill="var(--accent)" stroke="currentColor" strokeWidth="1.6" />
      </svg>
      Geolabe
    </span>
  )
}
