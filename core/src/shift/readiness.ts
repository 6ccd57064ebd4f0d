/** The stations of a shift that ask for something first; sign-on, walk-round and site begin it, stowing is always possible. */
export const heldStations = ['raise', 'set-up', 'prove', 'lift'] as const
export type HeldStation = (typeof heldStations)[number]

/** How a shift stands, as far as it decides what may be done next. */
export interface ShiftStanding {
  /** A defect stops the machine. */
  stopped: boolean
  /** The walk-round before the shift is finished, its first part. */
  walked: boolean
  /** A walk-round after an absence is begun and not finished. */
  absent: boolean
  /** Looked at where the machine stands now, every hazard controlled. */
  siteFit: boolean
  /** Set up where it stands now; a machine without a set-up needs none. */
  setUp: boolean
  /** What waits for overhead, people and outriggers has been proved where it stands now; a machine without needs none. */
  raised: boolean
  /** What has to follow an override and is not done. */
  followUps: readonly { label: string; role: string }[]
}

export interface Holding {
  code: 'machine-stopped' | 'not-walked' | 'site-not-fit' | 'not-set-up' | 'not-proved-raised' | 'follow-up-open'
  /** Why it holds, and how to go on. */
  why: string
}

const roleWords: Record<string, string> = { fitter: 'the fitter', 'person-in-charge': 'the person in charge' }

type Rule = (s: ShiftStanding) => Holding | null
const stopped: Rule = (s) =>
  s.stopped ? { code: 'machine-stopped', why: 'This machine is stopped. Make it stand without risk; nothing is lifted.' } : null
const walked: Rule = (s) => (s.walked ? null : { code: 'not-walked', why: 'Finish the walk-round first.' })
const back: Rule = (s) =>
  s.absent ? { code: 'not-walked', why: 'You left the machine: finish the walk-round after the absence first.' } : null
const fit: Rule = (s) =>
  s.siteFit ? null : { code: 'site-not-fit', why: 'Look at the site where it stands now first; every hazard needs its control.' }
const setUp: Rule = (s) => (s.setUp ? null : { code: 'not-set-up', why: 'Set the machine up where it stands now first.' })
const raised: Rule = (s) =>
  s.raised
    ? null
    : {
        code: 'not-proved-raised',
        why: 'Prove the functions over their travel first: the second part of the walk-round.',
      }
const followed: Rule = (s) => {
  const open = s.followUps[0]
  return open
    ? {
        code: 'follow-up-open',
        why: `Before the next lift: ${open.label}. This is the part of ${roleWords[open.role] ?? open.role}.`,
      }
    : null
}

/** One list of what each station needs, gravest first. */
const needs: Record<HeldStation, readonly Rule[]> = {
  raise: [stopped, walked, back, fit, setUp],
  'set-up': [stopped, walked, back, fit],
  prove: [stopped, walked, back, fit, followed],
  lift: [stopped, walked, back, fit, setUp, followed, raised],
}

/**
 * What holds a station back, gravest first; empty: it is ready. The same on the screen and on the server.
 *
 * @example holding('set-up', standing)[0]?.why
 */
export function holding(station: HeldStation, s: ShiftStanding): Holding[] {
  return needs[station].flatMap((rule) => rule(s) ?? [])
}
