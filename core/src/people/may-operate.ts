import type { Machine } from '../machine/machine'
import type { Qualified } from './person'

export interface Impediment {
  code: 'role' | 'no-licence' | 'licence-expired' | 'not-trained' | 'not-authorised'
  /** What stands in the way. */
  why: string
  /** What would put it right. */
  resolution: string
}

/**
 * What keeps a person from signing on to a machine today; empty: nothing that is on record.
 * @param today ISO date; a licence counts through its last day
 */
export function impedimentsTo(
  person: Qualified,
  machine: Pick<Machine, 'id' | 'name' | 'licence' | 'kind'>,
  today: string,
): Impediment[] {
  const impediments: Impediment[] = []
  if (!person.roles.includes('operator')) {
    impediments.push({
      code: 'role',
      why: `${person.name} is not on record as an operator.`,
      resolution: 'An administrator can add the role.',
    })
  }
  const held = person.licences.filter((l) => l.class === machine.licence.class)
  const latest = held
    .map((l) => l.validUntil)
    .sort()
    .at(-1)
  if (latest === undefined) {
    impediments.push({
      code: 'no-licence',
      why: `${machine.name} needs the licence class “${machine.licence.label}”; none is on record.`,
      resolution: 'Show the licence to an administrator, who enters it.',
    })
  } else if (latest < today) {
    impediments.push({
      code: 'licence-expired',
      why: `The licence “${machine.licence.label}” ran out on ${latest}.`,
      resolution: 'Renew it and show the new card to an administrator; until then somebody else has to operate.',
    })
  }
  if (!person.trained.includes(machine.kind.id)) {
    impediments.push({
      code: 'not-trained',
      why: `No training on a ${machine.kind.label} is on record.`,
      resolution: 'Train with an assessor, or work under a named supervisor.',
    })
  }
  if (!person.authorised.includes(machine.id)) {
    impediments.push({
      code: 'not-authorised',
      why: `No authorisation for ${machine.name} is on record.`,
      resolution: 'The person in charge can give it; the licence and the training stay needed.',
    })
  }
  return impediments
}

/** What is on record of somebody for the kind of a machine: people are trained, and practise, for a kind. */
export const forKindOf = <T>(byKind: ReadonlyMap<string, T>, m: Pick<Machine, 'kind'>): T | undefined => byKind.get(m.kind.id)

export interface Expiry {
  class: string
  validUntil: string
  daysLeft: number
  state: 'expired' | 'soon' | 'in-date'
}

/** Warned this long before a licence runs out: time to book and pass a renewal. */
export const licenceAhead_days = 60

/** Licences by the day they run out, the next first. A class held twice counts by the later date. */
export function licenceExpiries(person: Pick<Qualified, 'licences'>, today: string): Expiry[] {
  const latest = new Map<string, string>()
  for (const l of person.licences) {
    const known = latest.get(l.class)
    if (!known || known < l.validUntil) latest.set(l.class, l.validUntil)
  }
  return [...latest]
    .map(([c, validUntil]): Expiry => {
      const daysLeft = Math.round((Date.parse(validUntil) - Date.parse(today)) / 86_400_000)
      return {
        class: c,
        validUntil,
        daysLeft,
        state: daysLeft < 0 ? 'expired' : daysLeft <= licenceAhead_days ? 'soon' : 'in-date',
      }
    })
    .sort((a, b) => a.validUntil.localeCompare(b.validUntil))
}
