import { z } from 'zod'

const text = z.string().min(1)

/** What can go wrong so that nothing may be asked first. */
export const emergencyKind = z.enum(['fire', 'line', 'trapped', 'load', 'wind', 'power', 'over'])
type EmergencyKind = z.infer<typeof emergencyKind>

/** What a machine has of its own in an emergency; what it leaves out is as it is for every machine. It has nowhere to ask or refuse anything. */
export const emergencies = z.strictObject({
  /** What cannot happen to it. */
  without: z.array(emergencyKind).default([]),
  own: z.array(z.strictObject({ id: emergencyKind, acts: z.array(text).min(2).max(6) })).default([]),
})
export type Emergencies = z.infer<typeof emergencies>

/** What is done first when something has gone wrong: nothing is asked, nothing refused. */
export interface EmergencyCard {
  id: EmergencyKind
  label: string
  acts: readonly string[]
}

const shared: readonly EmergencyCard[] = [
  {
    id: 'fire',
    label: 'Fire',
    acts: ['Stop', 'Off, if it is at hand', 'Out on the side away from it', 'Call; keep people off'],
  },
  {
    id: 'line',
    label: 'A line is touched',
    acts: [
      'Stay in; touch nothing',
      'Everybody else 15 m off until the line is dead',
      'Fire: jump clear, feet together, hop away',
      'Call the line’s owner',
    ],
  },
  {
    id: 'trapped',
    label: 'Somebody is trapped, or aloft',
    acts: [
      'Stop',
      'Look which motion frees and which crushes',
      'Only that one, slowly, by one person’s signals',
      'Aloft: lower from below',
      'Call',
    ],
  },
  {
    id: 'load',
    label: 'The load cannot be held',
    acts: [
      'Horn; everybody away',
      'Land it if below is clear, else hold',
      'Never stand under it to hold it',
      'Zone as wide as it can fall',
    ],
  },
  {
    id: 'wind',
    label: 'Wind comes up',
    acts: [
      'Land what hangs, if below is clear',
      'Boom to its angle for the wind, by the book',
      'Free to turn where the book says so, nothing hung',
      'People away',
    ],
  },
  {
    id: 'power',
    label: 'Power is gone, the load is up',
    acts: [
      'Everybody away from below',
      'Controls to neutral',
      'Down by hand, by the book',
      'Else guarded by name until it is down',
    ],
  },
  {
    id: 'over',
    label: 'It is going over',
    acts: ['Load down, if below is clear', 'No slewing, no booming out', 'Away from the side it falls to', 'Keep everybody off'],
  },
]

/** No machine is spared these: their cards are never left out. */
export const sparedByNone: readonly EmergencyKind[] = ['fire', 'trapped', 'load', 'power']
export const emergencyLabel = (id: EmergencyKind): string => shared.find((c) => c.id === id)?.label ?? id

/**
 * The cards of a machine, in the same order for all.
 *
 * @example emergencyCards(machine.procedures.emergency).find((c) => c.id === 'over')?.acts // a truck's: stay in, belt on
 */
export const emergencyCards = ({ without, own }: Emergencies): EmergencyCard[] =>
  shared.filter((c) => !without.includes(c.id)).map((c) => ({ ...c, acts: own.find((o) => o.id === c.id)?.acts ?? c.acts }))
