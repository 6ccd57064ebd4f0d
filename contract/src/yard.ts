import { boomTable, machineDefinition, placeDefinition } from '@geolabe/core'
import { z } from 'zod'
import { moment, personRef } from './common'
import { defect } from './defects'

export const machineState = z.enum(['ready', 'in-use', 'stopped'])
export type MachineState = z.infer<typeof machineState>

export const yardMachine = z.object({
  id: z.string(),
  name: z.string(),
  kind: z.string(),
  note: z.string(),
  state: machineState,
  /** Who has it now. */
  holder: z.object({ person: personRef, since: moment, place: z.string(), shift: z.string() }).nullable(),
  /** Why it is stopped: the gravest open defect. */
  stoppedBy: z.object({ id: z.string(), where: z.string(), words: z.string(), grade: z.string(), state: z.string() }).nullable(),
  watched: z.number(),
  hours: z.number().nullable(),
  lastHandOver: moment.nullable(),
})
export type YardMachine = z.infer<typeof yardMachine>
export const yard = z.object({ machines: z.array(yardMachine) })
export type Yard = z.infer<typeof yard>

export const handOverNote = z.object({
  by: personRef,
  at: moment,
  words: z.string(),
  hours: z.number().nullable(),
  fuel_share: z.number().nullable(),
  standsAt: z.string(),
})
export type HandOverNote = z.infer<typeof handOverNote>

/** Everything somebody needs before taking a machine. */
export const machineFile = z.object({
  definition: machineDefinition,
  tables: z.array(boomTable),
  state: yardMachine,
  watched: z.array(defect),
  stopping: z.array(defect),
  handOver: handOverNote.nullable(),
})
export type MachineFile = z.infer<typeof machineFile>

export const places = z.object({ places: z.array(placeDefinition) })
export type Places = z.infer<typeof places>
