import type { InspectionEntryRequest } from '@geolabe/contract'
import { type Inspection, type InspectionEntry, type Shift, withEvent } from '@geolabe/core'
import { deviceId } from '../api/client'
import { outbox } from '../api/outbox'
import { putShift, useOutbox } from '../api/queries'

export interface ShownEntry extends InspectionEntry {
  /** In the records; otherwise only on this device so far. */
  saved: boolean
}

/** The entries of a walk-round; of what waits on this device it is said that it is not saved. */
export function useEntries({ id, entries }: Pick<Inspection, 'id' | 'entries'>): Map<string, ShownEntry> {
  const { waiting } = useOutbox()
  const unsaved = new Set(
    waiting.flatMap(({ what, body }) => {
      if (what !== 'enter-item') return []
      const { inspection, item } = body as InspectionEntryRequest
      return inspection === id ? [item] : []
    }),
  )
  return new Map(entries.map((e) => [e.item, { ...e, saved: !unsaved.has(e.item) }]))
}

export type NewEntry = Omit<InspectionEntryRequest, 'device' | 'inspection'>

/** Keeps an entry, sends it, and takes it as saved only when the records have it. */
export async function sendEntry(shift: Shift, inspection: string, entry: NewEntry): Promise<void> {
  const body: InspectionEntryRequest = { ...entry, device: deviceId(), inspection }
  const answer = await outbox.sendPatiently<{ saved: string; at: string }>('enter-item', { shift: shift.id }, body)
  // Still on its way: shown as kept on this device, from the outbox itself.
  if (answer === null) return
  const { replaces: _r, plate: _p, inspection: _i, ...kept } = body
  // A device’s wrong clock is set right by the records: their moment is shown, and named when the entry is replaced.
  const saved: InspectionEntry = { ...kept, at: answer.at, device: body.device ?? '', because: body.because ?? null }
  const event = { kind: 'inspection-entry', at: answer.at, by: shift.operator, inspection, entry: saved } as const
  putShift(shift.id, (s) => s && withEvent(s, event))
}
