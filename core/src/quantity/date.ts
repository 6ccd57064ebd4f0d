import { z } from 'zod'

/** A day, as YYYY-MM-DD. */
export const isoDate = z.iso.date('Give a date as YYYY-MM-DD.')
