import { z } from 'zod'
import { isoDate } from '../quantity/date'

export const role = z.enum(['operator', 'person-in-charge', 'fitter', 'assessor', 'administrator'])
export type Role = z.infer<typeof role>

export const roleWords: Record<Role, string> = {
  operator: 'Operator',
  'person-in-charge': 'Person in charge',
  fitter: 'Fitter',
  assessor: 'Assessor',
  administrator: 'Administrator',
}

export const licence = z.strictObject({ class: z.string().min(1), grade: z.string().min(1), validUntil: isoDate })
export type Licence = z.infer<typeof licence>

/** What decides whether somebody may take a machine. */
export interface Qualified {
  name: string
  roles: readonly Role[]
  licences: readonly Licence[]
  /** Machine kinds they were trained on. */
  trained: readonly string[]
  /** Machines they are authorised for: the electronic key. */
  authorised: readonly string[]
}
