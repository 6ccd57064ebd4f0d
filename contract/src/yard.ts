import { type BoomPart, controlMap, machineDefinition, type Polygon, placeDefinition, ratingTable } from '@geolabe/core'
import { z } from 'zod'
import { clientId, maybeWords, moment, personRef } from './common'
import { defect } from './defects'

export const dueState = z.enum(['never', 'overdue', 'soon', 'later'])
export const dueLine = z.object({
  machine: z.string(),
  machineName: z.string(),
  duty: z.string(),
  label: z.string(),
  kind: z.string(),
  by: z.string(),
  source: z.string(),
  every_days: z.number().nullable(),
  every_hours: z.number().nullable(),
  state: dueState,
  date: z.string().nullable(),
  daysLeft: z.number().nullable(),
  hoursLeft: z.number().nullable(),
  atHours: z.number().nullable(),
  expectedBy: z.enum(['date', 'use']).nullable(),
  note: z.string().nullable(),
  last: z.object({ on: z.string(), hours: z.number().nullable(), by: personRef.nullable(), words: z.string() }).nullable(),
})
export type DueLine = z.infer<typeof dueLine>

export const energyLine = z.object({
  machine: z.string(),
  machineName: z.string(),
  kind: z.enum(['fuel', 'gas', 'battery']),
  label: z.string(),
  share: z.number().nullable(),
  hoursLeft: z.number().nullable(),
  hoursADay: z.number().nullable(),
  action: z.enum(['nothing', 'refill-now', 'refill-today', 'read-it']),
  why: z.string(),
  refill_h: z.number().nullable(),
})
export type EnergyLine = z.infer<typeof energyLine>
export const duePage = z.object({ today: z.string(), due: z.array(dueLine), energy: z.array(energyLine) })
export type DuePage = z.infer<typeof duePage>
export const dutyDoneRequest = z.strictObject({
  id: clientId,
  duty: z.string(),
  on: z.iso.date('Give the day.'),
  hours: z.number().min(0).max(1_000_000).nullable(),
  words: maybeWords,
})
export type DutyDoneRequest = z.infer<typeof dutyDoneRequest>

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
  /** Somebody is on or under it. */
  handsOn: z.object({ person: personRef, since: moment }).nullable(),
  /** The most pressing duty. */
  nextDue: z.object({ label: z.string(), state: dueState, date: z.string().nullable() }).nullable(),
  energy_share: z.number().nullable(),
  hours: z.number().nullable(),
  lastHandover: moment.nullable(),
  /** Where it was handed over last. */
  lastPlace: z.string().nullable(),
  /** From its left, to be known at a glance. */
  drawing: z.object({ outline: z.object({ side: z.custom<Polygon[]>() }), boom: z.custom<BoomPart>().optional() }),
})
export type YardMachine = z.infer<typeof yardMachine>
export const yard = z.object({ machines: z.array(yardMachine) })
export type Yard = z.infer<typeof yard>

export const handoverNote = z.object({
  by: personRef,
  at: moment,
  words: z.string(),
  hours: z.number().nullable(),
  fuel_share: z.number().nullable(),
  standsAt: z.string(),
  /** Made from the record, gravest first. */
  lines: z.array(
    z.object({ about: z.enum(['defect', 'reading', 'override', 'due', 'state']), text: z.string(), grave: z.boolean() }),
  ),
})
export type HandoverNote = z.infer<typeof handoverNote>

/** Everything somebody needs before taking a machine. */
export const machineFile = z.object({
  definition: machineDefinition,
  tables: z.array(ratingTable),
  state: yardMachine,
  watched: z.array(defect),
  stopping: z.array(defect),
  handover: handoverNote.nullable(),
  /** Which revision of the walk-round this is; 0: the machine's own. */
  walkroundRevision: z.number(),
  /** And of its order of work. */
  orderRevision: z.number(),
  /** The last readings of each measured item, oldest first. */
  readings: z.record(z.string(), z.array(z.object({ at: moment, value: z.number(), replaced: z.boolean() }))),
  /** The rating plate as it was first entered; null: not yet. */
  plate: z.record(z.string(), z.union([z.string(), z.number()])).nullable(),
  /** What each field must read by the tables in use; fields that nothing gives are left out. */
  plateExpected: z.record(z.string(), z.number()),
  /** The machine this person drove last before, for what differs. */
  lastDriven: z.object({ id: z.string(), name: z.string(), controls: controlMap }).nullable(),
  due: z.array(dueLine),
  openOverrides: z.array(
    z.object({ id: z.string(), label: z.string(), reason: z.string(), after: z.string(), role: z.string(), at: moment }),
  ),
})
export type MachineFile = z.infer<typeof machineFile>

export const places = z.object({ places: z.array(placeDefinition) })
export type Places = z.infer<typeof places>
