import 'fake-indexeddb/auto'
import type { Shift } from '@geolabe/contract'
import { QueryObserver } from '@tanstack/react-query'
import { expect, it, vi } from 'vitest'
import { queryClient } from '../src/api/me'
import { putShift } from '../src/api/queries'

it('a reading that was under way when a write was answered does not take back what the write has left', async () => {
  const answers: ((s: unknown) => void)[] = []
  const queryKey = ['shift', 'x']
  const observer = new QueryObserver(queryClient, { queryKey, queryFn: () => new Promise((answer) => answers.push(answer)) })
  const leave = observer.subscribe(() => {})
  const shown = () => queryClient.getQueryData<{ n: number }>(queryKey)
  try {
    await vi.waitFor(() => expect(answers).toHaveLength(1))
    putShift('x', { n: 2 } as unknown as Shift)
    expect(shown()).toEqual({ n: 2 })
    // Read before the write was in the records, answered after it.
    answers[0]?.({ n: 1 })
    await vi.waitFor(() => expect(answers).toHaveLength(2))
    expect(shown()).toEqual({ n: 2 })
    answers[1]?.({ n: 3 })
    await vi.waitFor(() => expect(shown()).toEqual({ n: 3 }))
  } finally {
    leave()
    queryClient.clear()
  }
})
