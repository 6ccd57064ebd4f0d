import { format, parseISO } from 'date-fns'
import { DayPicker } from 'react-day-picker'
import { dateLocale } from '../units/locale'
import { monthLook } from './month-look'

/** A month to pick a day from. */
export function Month({ value, onPick }: { value: string | null; onPick: (day: string) => void }) {
  const chosen = value ? parseISO(value) : undefined
  return (
    <DayPicker
      mode="single"
      required
      selected={chosen}
      defaultMonth={chosen ?? new Date()}
      onSelect={(d) => onPick(format(d, 'yyyy-MM-dd'))}
      locale={dateLocale()}
      showOutsideDays
      classNames={monthLook}
    />
  )
}
