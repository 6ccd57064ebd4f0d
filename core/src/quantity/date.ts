import { z } from 'zod'

/** A day, as YYYY-MM-DD. */
export const isoDate = z.iso.date('Give a date as YYYY-MM-DD.')

/** A moment, as ISO 8601 with its offset. */
export const moment = z.iso.datetime({ offset: true })
