import { z } from 'zod'
import { clientId, moment, personRef, words } from './common'

export const grade = z.enum(['danger', 'harm', 'watch'])
export type Grade = z.infer<typeof grade>

export const gradeWords: Record<Grade, { label: string; means: string }> = {
  danger: { label: 'Danger to people', means: 'Could hurt someone. Stops the machine.' },
  harm: { label: 'Harm to the machine', means: 'Running on would make it worse. Stops the machine.' },
  watch: { label: 'Watch', means: 'Neither yet. Stays visible to everyone who follows.' },
}

export const stopsMachine = (g: Grade) => g !== 'watch'

export const defectState = z.enum(['raised', 'seen', 'repaired', 'returned'])
export type DefectState = z.infer<typeof defectState>

export const raiseDefectRequest = z.strictObject({
  id: clientId,
  machine: z.string(),
  shift: clientId.nullable(),
  item: z.string().nullable(),
  /** The item's own words, so that the defect reads alone. */
  where: z.string().max(200),
  words,
  grade,
})
export type RaiseDefectRequest = z.infer<typeof raiseDefectRequest>

export const repairRequest = z.strictObject({ words, parts: z.string().trim().max(500), hours: z.number().min(0).max(1000) })
export type RepairRequest = z.infer<typeof repairRequest>
export const returnRequest = z.strictObject({ words })
export type ReturnRequest = z.infer<typeof returnRequest>

export const defect = z.object({
  id: z.string(),
  machine: z.object({ id: z.string(), name: z.string() }),
  item: z.string().nullable(),
  where: z.string(),
  words: z.string(),
  grade,
  state: defectState,
  raised: z.object({ by: personRef, at: moment }),
  seen: z.object({ by: personRef, at: moment }).nullable(),
  repair: z.object({ by: personRef, at: moment, words: z.string(), parts: z.string(), hours: z.number() }).nullable(),
  returned: z.object({ by: personRef, at: moment, words: z.string() }).nullable(),
  photos: z.array(z.string()),
})
export type Defect = z.infer<typeof defect>

export const defectPage = z.object({ defects: z.array(defect), next: z.string().nullable() })
export type DefectPage = z.infer<typeof defectPage>

export const photoLimit_bytes = 4 * 1024 * 1024
