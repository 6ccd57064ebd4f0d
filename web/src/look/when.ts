import { format, parseISO } from 'date-fns'
import { dateLocale } from '../units/locale'

const by = (pattern: string) => (iso: string) => format(parseISO(iso), pattern, { locale: dateLocale() })

/** A moment: 3 Nov 2026, 14:05, as the locale writes it. */
export const when = by('PP, p')
/** A day of this year: Tue 3 Nov. */
export const day = by('EEE d MMM')
export const clock = by('p')
/** A day, in figures: 03/11/2026. */
export const date = by('P')
/** A day and its month: 3 Nov. */
export const dayOfMonth = by('d MMM')
