import 'fake-indexeddb/auto'
import { type InspectionEntryRequest, pathOf } from '@geolabe/contract'
import { project, type Shift, type ShiftEvent } from '@geolabe/core'
import { expect, it, vi } from 'vitest'
import type { Waiting } from '../src/api/outbox'
import { withWaiting } from '../src/shift/shown-shift'

vi.mock('../src/api/client', async (whole) => ({ ...(await whole<object>()), deviceId: () => 'tablet' }))

const id = '00000000-0000-4000-8000-000000000001'
const told = { at: '2026-03-01T05:00:00.000Z', by: { id: 'ines', name: 'Ines' } }
const opened: ShiftEvent[] = [
  {
    kind: 'shift-opened',
    ...told,
    shift: id,
    machine: { id: 'tern', name: 'Tern', revision: 1 },
    place: { id: 'quay', name: 'Quay' },
    signOn: { ppe: [], documents: [] },
  },
  { kind: 'inspection-opened', ...told, inspection: id, occasion: 'pre-use' },
]
const entry = { item: 'lean', result: 'in-order', reading: null, at: '2026-03-01T09:30:00.000Z' } as const

it('an entry stands at the moment that the records gave it, not at the device’s', async () => {
  const { outbox } = await import('../src/api/outbox')
  const { queryClient } = await import('../src/api/me')
  const { sendEntry } = await import('../src/walkround/entries')
  vi.spyOn(outbox, 'sendPatiently').mockResolvedValue({ saved: 'lean', at: '2026-03-01T06:00:00.000Z' })
  const shift = project(opened)
  queryClient.setQueryData(['shift', id], shift)
  await sendEntry(shift, id, entry)
  const now = queryClient.getQueryData<Shift>(['shift', id])
  expect(now?.inspections[0]?.entries).toEqual([{ ...entry, at: '2026-03-01T06:00:00.000Z', device: 'tablet', because: null }])
  queryClient.clear()
})

it('what waits on the device is shown as done; what belongs to another shift, or only the records can say, is not', () => {
  const waits = (what: Waiting['what'], body: unknown, shift = id): Waiting =>
    ({ key: `${what}`, order: 0, owner: 'ines', what, params: { shift }, body, at: '2026-03-01T09:31:00.000Z' }) as Waiting
  const body: InspectionEntryRequest = { ...entry, inspection: id, device: 'tablet' }
  const shown = withWaiting(project(opened), [
    waits('enter-item', body),
    waits('enter-item', { ...body, item: 'drips' }, 'another'),
    waits('finish-inspection', { inspection: id, part: 'first' }),
    waits('open-inspection', { id: '00000000-0000-4000-8000-000000000002', occasion: 'after-absence' }),
    waits('close-shift', {}),
    waits('enter-item', { item: 'no entry' }),
  ])
  const [first, further] = shown.inspections
  expect(first?.entries.map((e) => e.item)).toEqual(['lean'])
  expect(first?.finishedAt).toBe('2026-03-01T09:31:00.000Z')
  expect(further).toMatchObject({ occasion: 'after-absence', entries: [], finishedAt: null })
  expect(shown.closedAt).toBeNull()
})

it('an address holds each parameter, whatever it is made of', () => {
  expect(pathOf('end-lift', { shift: 'a/b', lift: 'ü' })).toBe('/shifts/a%2Fb/lifts/%C3%BC/outcome')
  expect(() => pathOf('end-lift', { shift: 'a' })).toThrow(/lift/)
})
