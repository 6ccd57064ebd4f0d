import type { RoundRequest, Shift } from '@geolabe/contract'
import { newId } from './client'
import { outbox } from './outbox'
import { putShift } from './queries'

/**
 * Begins a further round of a shift, or goes on with the one under way; without a network it begins on this device, and the
 * records hear of it in its turn.
 * @returns the round's id
 */
export async function beginRound(shift: Shift, time: 'absence' | 'end'): Promise<string> {
  const under = shift.rounds.find((r) => r.time === time && !r.finishedAt)
  if (under) return under.id
  const body: RoundRequest = { id: newId(), time }
  const answer = await outbox.sendPatiently<Shift>(`/shifts/${shift.id}/rounds`, body)
  const begun = { ...body, openedAt: new Date().toISOString(), marks: [], finishedAt: null }
  putShift(shift.id, (s) => answer ?? (s && { ...s, rounds: [...s.rounds, begun] }))
  return body.id
}
