import type { DueLine, DuePage } from '@geolabe/contract'
import clsx from 'clsx'
import { useState } from 'react'
import { Button } from '../look/button'

const day_ms = 86_400_000
const iso = (d: Date) => d.toISOString().slice(0, 10)
const locale = typeof navigator === 'undefined' ? 'en-GB' : navigator.language

/** A month, Monday first: what falls due on each day; overdue ones stand on today. */
export function Calendar({ page, onPick }: { page: DuePage; onPick: (d: DueLine) => void }) {
  const [month, setMonth] = useState(() => page.today.slice(0, 7))
  const first = new Date(`${month}-01T00:00:00Z`)
  const start = new Date(first.getTime() - ((first.getUTCDay() + 6) % 7) * day_ms)
  const days = Array.from({ length: 42 }, (_, i) => new Date(start.getTime() + i * day_ms))
  const shown = days.slice(0, days.findIndex((d, i) => i > 27 && i % 7 === 0 && iso(d).slice(0, 7) !== month) || 42)
  const weeks = shown.length < 28 ? days : shown
  const move = (by: number) => {
    const d = new Date(first)
    d.setUTCMonth(d.getUTCMonth() + by)
    setMonth(iso(d).slice(0, 7))
  }
  const onDay = (d: string) =>
    page.due.filter((x) => x.date !== null && (x.date === d || (d === page.today && x.state === 'overdue')))
  return (
    <section className="pb-8" aria-label="Calendar of what falls due">
      <div className="mb-3 flex items-center justify-between gap-3">
        <Button onClick={() => move(-1)}>Earlier</Button>
        <h2 aria-live="polite">{first.toLocaleDateString(locale, { month: 'long', year: 'numeric', timeZone: 'UTC' })}</h2>
        <Button onClick={() => move(1)}>Later</Button>
      </div>
      <div className="grid grid-cols-7 text-[0.9rem] font-semibold text-quiet max-md:hidden" aria-hidden="true">
        {weeks.slice(0, 7).map((d) => (
          <span key={iso(d)} className="px-1.5 pb-1">
            {d.toLocaleDateString(locale, { weekday: 'short', timeZone: 'UTC' })}
          </span>
        ))}
      </div>
      <ol className="grid grid-cols-7 gap-px overflow-hidden rounded-xl border border-line bg-line max-md:grid-cols-1">
        {weeks.map((date) => {
          const d = iso(date)
          const lines = onDay(d)
          const outside = d.slice(0, 7) !== month
          return (
            <li
              key={d}
              className={clsx(
                'min-h-24 min-w-0 bg-sheet p-1.5',
                outside && 'bg-paper text-quiet',
                lines.length === 0 && 'max-md:hidden',
                d === page.today && 'outline-3 -outline-offset-3 outline-ink',
              )}
            >
              <span className="figure text-[0.9rem] font-semibold">
                {date.getUTCDate()}
                <span className="md:hidden">
                  {' '}
                  {date.toLocaleDateString(locale, { weekday: 'short', month: 'short', timeZone: 'UTC' })}
                </span>
              </span>
              <ul className="mt-1 grid gap-1">
                {lines.map((x) => (
                  <li key={`${x.machine} ${x.duty}`}>
                    <button
                      type="button"
                      onClick={() => onPick(x)}
                      className={clsx(
                        'min-h-12 w-full rounded border-l-4 bg-paper px-1.5 py-0.5 text-left text-[0.86rem] leading-tight',
                        x.state === 'overdue'
                          ? 'border-outside font-semibold text-outside'
                          : x.state === 'soon'
                            ? 'border-near'
                            : 'border-edge',
                      )}
                    >
                      {x.machineName}: {x.label.toLowerCase()}
                    </button>
                  </li>
                ))}
              </ul>
            </li>
          )
        })}
      </ol>
    </section>
  )
}
