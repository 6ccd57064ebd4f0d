import type { Shift, WalkMark } from '@geolabe/contract'
import { outbox } from '../api/outbox'
import { queryClient, useOutbox } from '../api/queries'

export interface ShownMark extends WalkMark {
  /** In the records; otherwise only on this device so far. */
  saved: boolean
}

/** The marks of a walk-round: what the records hold, and over it what waits on this device. */
export function useMarks(shift: Shift): Map<string, ShownMark> {
  const { waiting } = useOutbox()
  const marks = new Map<string, ShownMark>(shift.walk.marks.map((m) => [m.item, { ...m, saved: true }]))
  for (const w of waiting) {
    if (w.path !== `/shifts/${shift.id}/walk-items`) continue
    const m = w.body as WalkMark
    marks.set(m.item, { ...m, saved: false })
  }
  return marks
}

/** Keeps a mark, sends it, and shows it as saved only when the records have it. */
export async function sendMark(shift: Shift, mark: WalkMark): Promise<void> {
  await outbox.send(`/shifts/${shift.id}/walk-items`, mark)
  queryClient.setQueryData<Shift>(
    ['shift', shift.id],
    (s) => s && { ...s, walk: { ...s.walk, marks: [...s.walk.marks.filter((m) => m.item !== mark.item), mark] } },
  )
}
