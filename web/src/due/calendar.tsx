import type { DueLine, DuePage } from '@geolabe/contract'
import clsx from 'clsx'
import { format, parseISO } from 'date-fns'
import { createContext, useContext } from 'react'
import { DayPicker, type DayProps } from 'react-day-picker'
import { t } from '../language/t'
import { monthLook } from '../look/month-look'
import { dateLocale } from '../units/locale'

interface Shown {
  page: DuePage
  onPick: (d: DueLine) => void
}

const Due = createContext<Shown | null>(null)

/** A month: what falls due on each day; overdue ones stand on today. */
export function Calendar({ page, onPick }: Shown) {
  return (
    <section className="pb-8" aria-label={t`Calendar of what falls due`}>
      <Due value={{ page, onPick }}>
        <DayPicker
          defaultMonth={parseISO(page.today)}
          today={parseISO(page.today)}
          locale={dateLocale()}
          weekStartsOn={1}
          showOutsideDays
          classNames={look}
          components={{ Day }}
        />
      </Due>
    </section>
  )
}

/** On a phone only the days on which something falls due, one below the other. */
const look = {
  ...monthLook,
  month_grid: 'mt-2 w-full table-fixed border-collapse max-md:[&_tbody]:block max-md:[&_thead]:hidden max-md:[&_tr]:block',
  weekday: 'px-1.5 pb-1 text-left text-[0.9rem] font-semibold text-quiet',
}

/** A day with what falls due on it. */
function Day({ day, modifiers }: DayProps) {
  const shown = useContext(Due)
  if (!shown) return <td />
  const { page, onPick } = shown
  const d = format(day.date, 'yyyy-MM-dd')
  const lines = page.due.filter((x) => x.date !== null && (x.date === d || (d === page.today && x.state === 'overdue')))
  return (
    <td
      className={clsx(
        'h-24 border border-line p-1.5 align-top max-md:h-auto',
        modifiers.outside ? 'bg-paper text-quiet' : 'bg-sheet',
        lines.length === 0 ? 'max-md:hidden' : 'max-md:block',
        d === page.today && 'outline-3 -outline-offset-3 outline-ink',
      )}
    >
      <span className="figure text-[0.9rem] font-semibold">
        {format(day.date, 'd')}
        <span className="md:hidden"> {format(day.date, 'EEE MMM', { locale: dateLocale() })}</span>
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
    </td>
  )
}
