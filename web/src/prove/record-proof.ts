import type { ProveRequest, Shift } from '@geolabe/contract'
import { useState } from 'react'
import { useNavigate } from 'react-router'
import { newId } from '../api/client'
import { outbox } from '../api/outbox'
import { putShift } from '../api/queries'

/** Records a proof and goes on to the lift; without a network it is kept on this device and sent once. */
export function useRecordProof(shift: string, clear: () => void) {
  const navigate = useNavigate()
  const [error, setError] = useState<unknown>(null)
  const record = async (proof: Omit<ProveRequest, 'id'>) => {
    setError(null)
    try {
      const s = await outbox.sendPatiently<Shift, 'prove-lift'>('prove-lift', { shift }, { id: newId(), ...proof })
      if (s) putShift(shift, s)
      clear()
      navigate(`/shifts/${shift}/lift`)
    } catch (e) {
      setError(e)
    }
  }
  return { record, error }
}
