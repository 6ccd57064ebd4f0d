import type { PracticeRun } from '@geolabe/contract'
import { useEffect, useRef, useState } from 'react'
import { queryClient } from '../api/me'
import { outbox } from '../api/outbox'

/** Sends a run to be kept; once. What refused it. */
export function useSent(run: PracticeRun, score: number): unknown {
  const [error, setError] = useState<unknown>(null)
  const sent = useRef('')
  useEffect(() => {
    if (sent.current === run.id) return
    sent.current = run.id
    outbox
      .sendPatiently('practice-run', {}, { run, score })
      .then(() => queryClient.invalidateQueries({ queryKey: ['practice'] }))
      .catch(setError)
  }, [run, score])
  return error
}
