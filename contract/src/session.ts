import { licence, role } from '@geolabe/core'
import { z } from 'zod'

export const signInRequest = z.strictObject({
  organisation: z.string().trim().min(1, 'Give the yard’s short name.').max(80),
  badge: z.string().trim().min(1, 'Give the badge number.').max(20),
  pin: z.string().min(1, 'Give the PIN.').max(20),
})
export type SignInRequest = z.infer<typeof signInRequest>

export const me = z.object({
  id: z.string(),
  name: z.string(),
  badge: z.string(),
  roles: z.array(role),
  licences: z.array(licence),
  trained: z.array(z.string()),
  authorised: z.array(z.string()),
  organisation: z.object({ id: z.string(), name: z.string() }),
})
export type Me = z.infer<typeof me>

/** Only answered in demo mode. */
export const demoPeople = z.object({
  people: z.array(
    z.object({
      organisation: z.string(),
      organisationName: z.string(),
      name: z.string(),
      badge: z.string(),
      pin: z.string(),
      note: z.string(),
    }),
  ),
})
export type DemoPeople = z.infer<typeof demoPeople>
