import type { Machine } from '../machine/machine'
import type { Policy } from '../place/place'

/** How hard practice begins for everybody; what was passed below it counts for no site. */
export const first_level = 0.1

/** Days ago: of what is done with the machine's levers and drives it, and of the rest; null: never. */
export interface ByHand {
  levers: number | null
  other: number | null
}

/** What is on record of somebody and one kind of machine. */
export interface Practised {
  /** The last shift on one of them, days ago; null: none. */
  shift_days: number | null
  /** The last passed run, no easier than practice begins. */
  passed_days: ByHand
  /** The newest certificate of practice that is in date and not for an earlier machine. */
  certificate_days: ByHand
}

const never: ByHand = { levers: null, other: null }
export const neverPractised: Practised = { shift_days: null, passed_days: never, certificate_days: never }

/** What can be practised on a machine: with its levers; only something else, its tables or signals; nothing. */
export type Offer = 'levers' | 'other' | 'nothing'

/** Practice that a site asks of somebody before a shift. */
export interface PracticeAsked {
  /** Without it the machine is not taken; otherwise it is only recommended. */
  must: boolean
  why: string
  resolution: string
}

/**
 * What practice a site asks for before a shift on a kind of machine: before the first one, and after an absence. What was practised answers to
 * this and to nothing else.
 *
 * @param known days, as the records have them
 * @param offer what can be practised on this very machine: where its levers can be, nothing else answers; where nothing can, nothing is asked
 * @returns null where nothing is asked, or what was asked has been shown
 * @example practiceAsked(tern, policy, { ...neverPractised, shift_days: 3 }, 'levers') // null
 */
export function practiceAsked(
  m: Pick<Machine, 'name' | 'kind'>,
  { practice }: Pick<Policy, 'practice'>,
  known: Practised,
  offer: Offer,
): PracticeAsked | null {
  const { before, absence_days, counts_days } = practice
  const recent = (days: number | null) => days !== null && days <= counts_days
  const within = ({ levers, other }: ByHand) => recent(levers) || (offer !== 'levers' && recent(other))
  const away = known.shift_days === null || known.shift_days > absence_days
  const shown =
    before === 'certificate' ? within(known.certificate_days) : within(known.passed_days) || within(known.certificate_days)
  if (offer === 'nothing' || !away || shown) return null
  const why =
    known.shift_days === null
      ? `No shift of yours on a ${m.kind.label} is on record.`
      : `Your last shift on a ${m.kind.label} was ${Math.floor(known.shift_days)} days ago.`
  const resolution = {
    certificate: `This site asks for a certificate of practice first: an assessor sets the exam.`,
    passed: `This site asks for a passed run of practice first.`,
    recommended: `Practise first: it takes five minutes.`,
  }[before]
  return { must: before !== 'recommended', why, resolution }
}
