import { licence, role } from '@geolabe/core'
import { z } from 'zod'
import { personRef } from './common'

export const personLine = z.object({
  id: z.string(),
  name: z.string(),
  badge: z.string(),
  roles: z.array(role),
  licences: z.array(licence),
  trained: z.array(z.string()),
  authorised: z.array(z.string()),
})
export type PersonLine = z.infer<typeof personLine>
export const peoplePage = z.object({
  people: z.array(personLine),
  machines: z.array(
    z.object({
      id: z.string(),
      name: z.string(),
      kind: z.object({ id: z.string(), label: z.string() }),
      licence: z.object({ class: z.string(), label: z.string() }),
    }),
  ),
  contacts: z.array(z.object({ person: personRef, standIn: personRef })),
})
export type PeoplePage = z.infer<typeof peoplePage>

/** Gives or withdraws the key to a machine. */
export const authoriseRequest = z.strictObject({ machine: z.string(), give: z.boolean() })
export type AuthoriseRequest = z.infer<typeof authoriseRequest>
