import type { Occasion, Shift } from '@geolabe/core'
import { newId } from './client'
import { outbox } from './outbox'
import { putShift } from './queries'

/**
 * Opens a further walk-round of a shift, or goes on with the one under way; without a network it is opened on this device, and the
 * records hear of it in its turn.
 * @returns its id
 */
export async function openInspection(shift: Shift, occasion: Exclude<Occasion, 'pre-use'>): Promise<string> {
  const under = shift.inspections.find((i) => i.occasion === occasion && !i.finishedAt)
  if (under) return under.id
  const id = newId()
  const answer = await outbox.sendPatiently<Shift>('open-inspection', { shift: shift.id }, { id, occasion })
  if (answer) putShift(shift.id, answer)
  return id
}
