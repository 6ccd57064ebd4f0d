import type { DueLine, Me, YardMachine } from '@geolabe/contract'
import {
  type Impediment,
  impedimentsTo,
  type Machine,
  type Offer,
  type Place,
  type Practised,
  practiceAsked,
} from '@geolabe/core'

/** One thing that keeps somebody from taking a machine today, in words; with the status it is refused with. */
export interface Bar {
  status: 403 | 409
  code: 'machine-stopped' | 'machine-taken' | 'may-not-operate' | 'examination-overdue' | 'practice-asked'
  why: string
  details?: readonly Impediment[]
}

interface Taken {
  machine: Machine
  state: YardMachine
  due: readonly DueLine[]
  /** What was practised of this kind, and what can be on this machine. */
  practice: { known: Practised; offer: Offer }
}

/** Everything that keeps a person from taking a machine today at a place of that policy, in the order in which it is told; none: nothing on record does. */
export function refusalsToTake({ machine, state, due, practice }: Taken, me: Me, policy: Place['policy'], today: string): Bar[] {
  const { stoppedBy: d, holder } = state
  const { name } = machine
  const impediments = impedimentsTo(me, machine, today)
  const overdue = due.find((x) => x.machine === machine.id && x.kind === 'examination' && x.state === 'overdue')
  const asked = practiceAsked(machine, policy, practice.known, practice.offer)
  return [
    ...(d
      ? [
          {
            status: 409,
            code: 'machine-stopped',
            why: `${name} is stopped: ${d.words} (${d.where}). The person in charge returns it to service after the repair.`,
          } as const,
        ]
      : []),
    ...(holder
      ? [
          {
            status: 409,
            code: 'machine-taken',
            why: `${holder.person.name} has ${name} at ${holder.place}. It is free when that shift is handed over.`,
          } as const,
        ]
      : []),
    ...(impediments.length > 0
      ? [
          {
            status: 403,
            code: 'may-not-operate',
            why: `${me.name} may not operate ${name} today.`,
            details: impediments,
          } as const,
        ]
      : []),
    ...(overdue && policy.overdueExamination !== 'tell'
      ? [
          {
            status: 409,
            code: 'examination-overdue',
            why: `${name} is overdue for: ${overdue.label}${overdue.date ? `, due ${overdue.date}` : ''}. It is not taken until that is recorded under Due.`,
          } as const,
        ]
      : []),
    ...(asked?.must ? [{ status: 409, code: 'practice-asked', why: `${asked.why} ${asked.resolution}` } as const] : []),
  ]
}
