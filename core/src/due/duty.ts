import { z } from 'zod'
import { positive } from '../quantity/measured'
import { codeId } from '../quantity/name-id'

/** Something that falls due on a machine: by date, by hours of use, or whichever comes first. */
export const duty = z
  .strictObject({
    id: codeId,
    label: z.string().min(1),
    kind: z.enum(['daily', 'weekly', 'service', 'examination', 'certificate', 'extinguisher', 'belt', 'calibration']),
    every_days: positive.optional(),
    every_hours: positive.optional(),
    /** Warned this long ahead. */
    ahead_days: positive.optional(),
    by: z.enum(['operator', 'fitter', 'outside']),
    /** Where the interval comes from. */
    source: z.string().min(1),
  })
  .refine((d) => d.every_days !== undefined || d.every_hours !== undefined, {
    message: 'Give an interval in days, in hours, or both.',
    path: ['every_days'],
  })
export type Duty = z.infer<typeof duty>
