import type { Machine } from '../machine/machine'

/** Stands on every certificate. */
export const certificateSays = 'It shows practice. It is no licence and proves no skill on the machine itself.'

/** What may change on a machine and leaves what was practised as it was: words, papers, the walk-round, the order of work. */
const beside = new Set<string>([
  'revision',
  'name',
  'note',
  'licence',
  'ppe',
  'documents',
  'hours',
  'walkround',
  'stops',
  'plateFields',
  'duties',
  'energy',
  'shows',
  'symptoms',
  'defectPolicy',
  'evidence',
  'procedures',
  'cautions',
] satisfies (keyof Machine)[])

/**
 * What of a machine was practised: levers, how it answers them, its shape and figures; whatever is not known to lie beside it. Where this
 * changes, what was shown was shown on an earlier machine.
 */
export const practisedOn = (m: Machine): Partial<Machine> =>
  Object.fromEntries(Object.entries(m).filter(([part]) => !beside.has(part)))
