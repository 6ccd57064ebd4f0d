import { type DefectState, type Grade, isGraver } from './grade'

/** What is done about a defect. */
export const defectActions = [
  'acknowledge',
  'grade',
  'repair',
  'verify',
  'send-back',
  'watch',
  'accept',
  'return',
  'worsen',
] as const
export type DefectAction = (typeof defectActions)[number]

/**
 * Whose part a step is. The contact or the person in charge acknowledges; the inspector is a fitter or the person in charge, another
 * than who repaired it; anyone may say that something has worsened.
 */
export type DefectPart = 'contact' | 'fitter' | 'inspector' | 'person-in-charge' | 'anyone'

export interface DefectMove {
  action: DefectAction
  from: DefectState
  to: DefectState
  part: DefectPart
  /** Only for what does not stop the machine, and has been graded. */
  onlyWatch: boolean
}

const move = (
  action: DefectAction,
  part: DefectPart,
  ways: readonly (readonly [DefectState, DefectState])[],
  onlyWatch = false,
) => ways.map(([from, to]): DefectMove => ({ action, from, to, part, onlyWatch }))

/** The one list of what a defect may become, by whose part. The database holds the same and decides. */
export const defectMoves: readonly DefectMove[] = [
  ...move('acknowledge', 'contact', [['raised', 'acknowledged']]),
  ...move('grade', 'person-in-charge', [
    ['raised', 'raised'],
    ['acknowledged', 'acknowledged'],
    ['watched', 'acknowledged'],
  ]),
  ...move('repair', 'fitter', [
    ['raised', 'repaired'],
    ['acknowledged', 'repaired'],
    ['watched', 'repaired'],
  ]),
  ...move('verify', 'inspector', [['repaired', 'verified']]),
  ...move('send-back', 'inspector', [
    ['repaired', 'acknowledged'],
    ['verified', 'acknowledged'],
  ]),
  ...move(
    'watch',
    'person-in-charge',
    [
      ['acknowledged', 'watched'],
      ['watched', 'watched'],
    ],
    true,
  ),
  ...move(
    'accept',
    'person-in-charge',
    [
      ['acknowledged', 'accepted'],
      ['watched', 'accepted'],
    ],
    true,
  ),
  ...move('return', 'person-in-charge', [['verified', 'returned']]),
  ...move('worsen', 'anyone', [
    ['raised', 'raised'],
    ['acknowledged', 'acknowledged'],
    ['watched', 'acknowledged'],
  ]),
]

export interface DefectStanding {
  state: DefectState
  grade: Grade
  /** Not graded yet by who has to. */
  pending: boolean
  repairedBy: string | null
}

export interface DefectActor {
  id: string
  roles: readonly string[]
  /** Named contact or stand-in. */
  contact: boolean
}

const holds = (part: DefectPart, who: DefectActor): boolean => {
  const inCharge = who.roles.includes('person-in-charge')
  if (part === 'anyone') return true
  if (part === 'contact') return inCharge || who.contact
  if (part === 'inspector') return inCharge || who.roles.includes('fitter')
  return who.roles.includes(part)
}

/**
 * Why a step is not to be taken by somebody as things stand; null: it may.
 *
 * @param grade what `grade` and `worsen` would make it; left out: as it is
 * @example whyNot('repair', { state: 'acknowledged', grade: 'damage', pending: false, repairedBy: null }, { id: 'a', roles: ['fitter'], contact: false }) // null
 */
export function whyNot(
  action: DefectAction,
  d: DefectStanding,
  who: DefectActor,
  grade: Grade = d.grade,
): 'part' | 'state' | 'own-repair' | 'stops' | 'milder' | null {
  const part = defectMoves.find((m) => m.action === action)?.part
  if (!part || !holds(part, who)) return 'part'
  const way = defectMoves.find((m) => m.action === action && m.from === d.state)
  if (!way) return 'state'
  if ((action === 'verify' || action === 'return') && d.repairedBy === who.id) return 'own-repair'
  if (way.onlyWatch && (d.grade !== 'watch' || d.pending)) return 'stops'
  if (grade !== d.grade && !isGraver(grade, d.grade)) return 'milder'
  if (action === 'grade' && !d.pending && grade === d.grade) return 'state'
  return null
}
