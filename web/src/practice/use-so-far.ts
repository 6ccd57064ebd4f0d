import type { TrySoFar } from '@geolabe/contract'
import { useEffect, useRef } from 'react'
import { ApiError, call, newId } from '../api/client'
import { useGiven } from './given'

/** What was done is told so often. */
const tell_ms = 1000

/** While a try of an exam is under way its assessor may watch it: what was done so far is told. Without a network nothing is, and the try goes on. */
export function useSoFar(soFar: () => TrySoFar): void {
  const given = useGiven()
  const now = useRef(soFar)
  now.current = soFar
  useEffect(() => {
    if (!given) return
    let [told, telling] = [0, false]
    const timer = setInterval(async () => {
      const body = now.current()
      if (telling || body.ticks <= told) return
      telling = true
      try {
        await call({ method: 'POST', path: `/practice/exams/${given.exam}/tries/${given.id}/so-far`, body, key: newId() })
        told = body.ticks
      } catch (e) {
        // Refused it stays refused; nobody at the levers is told of it: what counts is sent once it is over.
        if (e instanceof ApiError && !e.retryable) clearInterval(timer)
      } finally {
        telling = false
      }
    }, tell_ms)
    return () => clearInterval(timer)
  }, [given])
}
