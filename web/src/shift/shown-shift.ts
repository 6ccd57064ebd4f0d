import { eventOf } from '@geolabe/contract'
import { type Shift, withEvent } from '@geolabe/core'
import { useMemo } from 'react'
import type { Waiting } from '../api/outbox'
import { useOutbox } from '../api/queries'

/** A shift as the records have it, with what waits on this device to be recorded. */
export function withWaiting(shift: Shift, waiting: readonly Waiting[]): Shift {
  return waiting
    .filter((w) => w.params.shift === shift.id)
    .reduce((s, w) => {
      const event = eventOf(w.what, w.body, { at: w.at, by: shift.operator })
      return event ? withEvent(s, event) : s
    }, shift)
}

export function useShownShift(shift: Shift): Shift {
  const { waiting } = useOutbox()
  return useMemo(() => withWaiting(shift, waiting), [shift, waiting])
}
