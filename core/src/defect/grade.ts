import { z } from 'zod'

export const grade = z.enum(['hazard', 'damage', 'watch'])
export type Grade = z.infer<typeof grade>

export const gradeWords: Record<Grade, { label: string; means: string }> = {
  hazard: { label: 'Danger to people', means: 'Could hurt someone. Stops the machine.' },
  damage: { label: 'Damage to the machine', means: 'Running on would make it worse. Stops the machine.' },
  watch: { label: 'Watch', means: 'Neither yet. Stays visible to everyone who follows.' },
}

export const stopsMachine = (g: Grade) => g !== 'watch'

/** Who grades: cranes by the operator; on a forklift any defect stops it until the person in charge has graded it. */
export const defectPolicy = z.enum(['operator-grades', 'stops-until-graded'])
export type DefectPolicy = z.infer<typeof defectPolicy>

/** The two questions of the helper. Not knowing counts as yes: nobody is asked to guess that it will hold. */
export function gradeBy(couldHurt: 'yes' | 'no' | 'unsure', couldWorsen: 'yes' | 'no' | 'unsure'): Grade {
  if (couldHurt !== 'no') return 'hazard'
  return couldWorsen !== 'no' ? 'damage' : 'watch'
}

const weight: Record<Grade, number> = { watch: 0, damage: 1, hazard: 2 }
/** A defect may be graded graver at any time, milder never. */
export const isGraver = (to: Grade, from: Grade) => weight[to] > weight[from]

/** The grades that a defect may be given where something is graded at least `least`; all, where nothing is said. */
export const gradesFrom = (least: Grade | undefined): Grade[] =>
  grade.options.filter((g) => least === undefined || g === least || isGraver(g, least))

export const defectState = z.enum(['raised', 'acknowledged', 'repaired', 'verified', 'watched', 'accepted', 'returned'])
export type DefectState = z.infer<typeof defectState>

/** Ended, one way or the other. It stays in the records. */
export const isClosed = (s: DefectState) => s === 'returned' || s === 'accepted'

/** Whether the time to look again at a watched defect has come. */
export function watchIsOver(until: { date: string | null; hours: number | null }, today: string, hours: number | null): boolean {
  return (until.date !== null && until.date < today) || (until.hours !== null && hours !== null && hours >= until.hours)
}
