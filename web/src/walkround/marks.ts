import type { Shift, WalkMark, WalkMarkRequest } from '@geolabe/contract'
import { deviceId } from '../api/client'
import { outbox } from '../api/outbox'
import { putShift, useOutbox } from '../api/queries'

export interface ShownMark extends WalkMark {
  /** In the records; otherwise only on this device so far. */
  saved: boolean
}

const marksIn = (shift: Shift, round: string | null): WalkMark[] =>
  round === null ? shift.walk.marks : (shift.rounds.find((r) => r.id === round)?.marks ?? [])

/** The marks of a round: what the records hold, and over it what waits on this device. */
export function useMarks(shift: Shift, round: string | null): Map<string, ShownMark> {
  const { waiting } = useOutbox()
  const marks = new Map<string, ShownMark>(marksIn(shift, round).map((m) => [m.item, { ...m, saved: true }]))
  for (const w of waiting) {
    if (w.path !== `/shifts/${shift.id}/walk-items`) continue
    const m = w.body as WalkMarkRequest
    if ((m.round ?? null) !== round) continue
    marks.set(m.item, { ...m, device: m.device ?? '', because: m.because ?? null, saved: false })
  }
  return marks
}

export type NewMark = Omit<WalkMarkRequest, 'device' | 'round'>

/** Keeps a mark, sends it, and shows it as saved only when the records have it. */
export async function sendMark(shift: Shift, round: string | null, mark: NewMark): Promise<void> {
  const body: WalkMarkRequest = { ...mark, device: deviceId(), round }
  const answer = await outbox.sendPatiently<{ saved: string; at: string }>(`/shifts/${shift.id}/walk-items`, body)
  // Still on its way: shown as kept on this device, from the outbox itself.
  if (answer === null) return
  const { replaces: _r, plate: _p, round: _n, ...kept } = body
  // A device’s wrong clock is set right by the records: their moment is shown, and named when the mark is replaced.
  const shown: WalkMark = { ...kept, at: answer.at, device: body.device ?? '', because: body.because ?? null }
  const put = (marks: WalkMark[]) => [...marks.filter((m) => m.item !== mark.item), shown]
  putShift(shift.id, (s) => {
    if (!s) return s
    if (round === null) return { ...s, walk: { ...s.walk, marks: put(s.walk.marks) } }
    return { ...s, rounds: s.rounds.map((r) => (r.id === round ? { ...r, marks: put(r.marks) } : r)) }
  })
}
