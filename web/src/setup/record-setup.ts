import type { Shift } from '@geolabe/contract'
import type { Machine, SetupPlan } from '@geolabe/core'
import { useState } from 'react'
import { useNavigate } from 'react-router'
import { newId } from '../api/client'
import { outbox } from '../api/outbox'
import { putShift } from '../api/queries'
import { nextStation } from '../shift/route-line'
import { withWaiting } from '../shift/shown-shift'

/** Records a set-up and goes on: to what is left of the walk-round, or to proving; a machine set up anew proves anew. */
export function useRecordSetup(shift: Shift, machine: Machine, clear: () => void) {
  const navigate = useNavigate()
  const [error, setError] = useState<unknown>(null)
  const record = async (plan: SetupPlan) => {
    setError(null)
    try {
      const answered = await outbox.sendPatiently<Shift, 'record-setup'>(
        'record-setup',
        { shift: shift.id },
        { id: newId(), plan },
      )
      // Without a network the device goes on with what it has kept.
      const s = answered ?? withWaiting(shift, outbox.read().waiting)
      if (answered) putShift(shift.id, answered)
      clear()
      navigate(`/shifts/${shift.id}/${nextStation(s, machine) === 'walk-round' ? 'walk-round' : 'prove'}`)
    } catch (e) {
      setError(e)
    }
  }
  return { record, error }
}
