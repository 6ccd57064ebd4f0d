import { z } from 'zod'
import { positive } from '../quantity/measured'

/** A certificate of practice counts for so long, unless a site wants it newer. */
export const certificate_days = 180

/** Practice before a first shift on a kind of machine, or after an absence. */
export const practicePolicy = z.strictObject({
  before: z.enum(['certificate', 'passed', 'recommended']).default('recommended'),
  /** Away from a kind for longer than this is an absence, days. */
  absence_days: positive.max(365, 'At most a year.').default(90),
  /** A passed run and a certificate count for so long here, days. */
  counts_days: positive.max(certificate_days, `At most ${certificate_days} days.`).default(certificate_days),
})
