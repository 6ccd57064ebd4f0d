import type { HoistPart } from '../parts/hoists/rope'
import type { SlewingParts } from '../parts/stability/slewing'
import type { Outrigger } from '../parts/supports/outriggers'
import { Refusal } from '../refusal'
import type { Machine } from './machine'

/** A machine that lifts on a hook from a boom that turns, whatever it stands on. */
export type Crane = Machine & SlewingParts & { hoist: HoistPart }

/** One that stands on outriggers, by themselves or among other ways. */
export type OutriggerCrane = Crane & { outriggers: Outrigger[] }

export function liftsOnHook(m: Machine): m is Crane {
  return Boolean(m.boom && m.hoist && m.upper && m.chassis && (m.outriggers || m.tower?.base || m.tracks))
}

export const liftsOnOutriggers = (m: Machine): m is OutriggerCrane => liftsOnHook(m) && m.outriggers !== undefined

const tooled = new WeakMap<Crane, Map<string, Crane>>()

/**
 * A crane with its tool at the boom's end: what it weighs there, whatever its table counts. One that has no tools stays as it is.
 *
 * @throws Refusal `unknown-tool` naming those there are
 */
export function withTool(machine: Crane, attachment: string | undefined): Crane {
  const tools = machine.truck?.attachments
  if (!tools) return machine
  const tool = tools.find((a) => a.id === attachment)
  if (!tool) {
    const known = tools.map((a) => a.id).join(', ')
    throw new Refusal('unknown-tool', `Say which tool is on ${machine.name}: ${known}.`, 'setup.fitted.attachment')
  }
  const made = tooled.get(machine) ?? new Map<string, Crane>()
  tooled.set(machine, made)
  const before = made.get(tool.id)
  if (before) return before
  const atEnd = tool.mass_kg > 0 ? [{ name: tool.label, mass_kg: tool.mass_kg, at_m: 0, share: 1 }] : []
  const one: Crane = { ...machine, boom: { ...machine.boom, masses: [...machine.boom.masses, ...atEnd] } }
  made.set(tool.id, one)
  return one
}
