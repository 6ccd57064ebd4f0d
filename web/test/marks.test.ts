import 'fake-indexeddb/auto'
import type { Shift } from '@geolabe/contract'
import { expect, it, vi } from 'vitest'

vi.mock('../src/api/client', async (whole) => ({ ...(await whole<object>()), deviceId: () => 'tablet' }))

it('a mark stands at the moment that the records gave it, not at the device’s', async () => {
  const { outbox } = await import('../src/api/outbox')
  const { queryClient } = await import('../src/api/queries')
  const { sendMark } = await import('../src/walkround/marks')
  vi.spyOn(outbox, 'sendPatiently').mockResolvedValue({ saved: 'lean', at: '2026-03-01T06:00:00.000Z' })
  const shift = { id: 's', walk: { marks: [] }, rounds: [] } as unknown as Shift
  queryClient.setQueryData(['shift', 's'], shift)
  await sendMark(shift, null, { item: 'lean', result: 'in-order', reading: null, at: '2026-03-01T09:30:00.000Z' })
  const now = queryClient.getQueryData<Shift>(['shift', 's'])
  expect(now?.walk.marks).toEqual([
    { item: 'lean', result: 'in-order', reading: null, at: '2026-03-01T06:00:00.000Z', device: 'tablet', because: null },
  ])
  queryClient.clear()
})
