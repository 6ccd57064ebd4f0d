import type { DemoPeople } from '@geolabe/contract'
import { readOrganisations } from './files'

/** Who can sign on in the demo world, with badge and PIN. */
export function demoPeople(): DemoPeople {
  return {
    people: readOrganisations().flatMap((org) =>
      org.people.map((p) => ({
        organisation: org.id,
        organisationName: org.name,
        name: p.name,
        badge: p.badge,
        pin: p.demoPin ?? '',
        note: p.note,
      })),
    ),
  }
}
