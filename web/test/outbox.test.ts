import 'fake-indexeddb/auto'
import { IDBFactory } from 'fake-indexeddb'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { ApiError } from '../src/api/client'
import { Outbox } from '../src/api/outbox'

interface Sent {
  path: string
  key: string
  body: unknown
}

/** A server that answers as it is told, and remembers what reached it. */
function server(answers: (sent: Sent, count: number) => Response | Promise<Response>) {
  const sent: Sent[] = []
  vi.stubGlobal(
    'fetch',
    vi.fn(async (url: string, init: RequestInit) => {
      const one = {
        path: url.replace('/api', ''),
        key: (init.headers as Record<string, string>)['idempotency-key'] ?? '',
        body: JSON.parse(String(init.body)),
      }
      sent.push(one)
      return answers(one, sent.length)
    }),
  )
  return sent
}
const yes = (body: unknown = {}) => Response.json(body)
const refusal = (status: number, code: string) =>
  Response.json({ error: { code, message: `refused: ${code}`, path: 'x' } }, { status })
const settled = (box: Outbox) => vi.waitFor(() => expect(box.read().waiting).toEqual([]), { timeout: 5000 })

const open: Outbox[] = []
/** A page's outbox; it is put away when its test ends, so that no retry of its own reaches the next test's server. */
function page(): Outbox {
  const box = new Outbox()
  open.push(box)
  return box
}
/** What a closing page takes with it: its timers, not what stands in the device's storage. */
const close = (box: Outbox) => box.end()

beforeEach(() => {
  globalThis.indexedDB = new IDBFactory()
})
afterEach(() => {
  for (const box of open.splice(0)) close(box)
  vi.unstubAllGlobals()
  vi.useRealTimers()
})

/** A write whose words are free. */
const step = (name: string) => ({ defect: 'a', step: name })

describe('the outbox', () => {
  it('sends in the order things were entered, each with a key of its own', async () => {
    const sent = server(() => yes())
    const box = page()
    await box.begin('yard/ines')
    await Promise.all([1, 2, 3, 4].map((n) => box.send('defect-step', step('marks'), { n })))
    expect(sent.map((s) => (s.body as { n: number }).n)).toEqual([1, 2, 3, 4])
    expect(new Set(sent.map((s) => s.key)).size).toBe(4)
    await settled(box)
  })

  it('keeps a write that got no answer and sends it again under the same key', async () => {
    vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] })
    const sent = server((_s, count) => {
      if (count <= 2) throw new TypeError('no network')
      return yes({ saved: true })
    })
    const box = page()
    await box.begin('yard/ines')
    const answer = box.send('defect-step', step('marks'), { n: 1 })
    await vi.waitFor(() => expect(box.read().stuck).toMatch(/stays on this device/))
    expect(box.read().waiting).toHaveLength(1)
    await vi.advanceTimersByTimeAsync(1100)
    await vi.waitFor(() => expect(sent).toHaveLength(2))
    await vi.advanceTimersByTimeAsync(2000)
    expect(await answer).toEqual({ saved: true })
    expect(new Set(sent.map((s) => s.key)).size).toBe(1)
  })

  it('waits behind the one that is stuck instead of overtaking it', async () => {
    const sent = server(() => refusal(503, 'database-away'))
    const box = page()
    await box.begin('yard/ines')
    void box.send('defect-step', step('first'), {})
    void box.send('defect-step', step('second'), {})
    await vi.waitFor(() => expect(box.read().stuck).toMatch(/database-away/))
    expect(sent.every((s) => s.path === '/defects/a/first')).toBe(true)
    expect(box.read().waiting.map((w) => w.params.step)).toEqual(['first', 'second'])
  })

  it('tells when all that was entered before is with the records, and waits for nothing that came after', async () => {
    const answer: ((r: Response) => void)[] = []
    server(() => new Promise((done) => answer.push(done)))
    const box = page()
    await box.begin('yard/ines')
    await box.allSent()
    const told: string[] = []
    void box.send('defect-step', step('before'), {})
    const all = box.allSent().then(() => told.push('all sent'))
    void box.send('defect-step', step('after'), {})
    await vi.waitFor(() => expect(answer).toHaveLength(1))
    expect(told).toEqual([])
    answer[0]?.(yes())
    await all
    expect(box.read().waiting.map((w) => w.params.step)).toEqual(['after'])
  })

  it('hands a refusal back to whoever made the write, and goes on', async () => {
    server((s) => (s.path === '/defects/a/bad' ? refusal(422, 'bad-input') : yes()))
    const box = page()
    await box.begin('yard/ines')
    const bad = box.send('defect-step', step('bad'), {})
    const good = box.send('defect-step', step('good'), {})
    await expect(bad).rejects.toBeInstanceOf(ApiError)
    await expect(bad).rejects.toMatchObject({ status: 422, body: { code: 'bad-input' } })
    await expect(good).resolves.toEqual({})
    await settled(box)
  })

  it('outlives its page: another begins with what was left, and tells that it got through', async () => {
    server(() => {
      throw new TypeError('no network')
    })
    const before = page()
    await before.begin('yard/ines')
    void before.send('defect-step', step('marks'), { n: 7 })
    await vi.waitFor(() => expect(before.read().stuck).not.toBeNull())
    const key = before.read().waiting[0]?.key
    close(before)

    const sent = server(() => yes())
    const after = page()
    const told: string[] = []
    after.onForgotten = async (w) => {
      // Still listed while it is being told, so that nothing blinks out between.
      told.push(`${w.params.step} ${after.read().waiting.length}`)
    }
    await after.begin('yard/ines')
    await settled(after)
    expect(sent.map((s) => [s.key, s.body])).toEqual([[key, { n: 7 }]])
    expect(told).toEqual(['marks 1'])
  })

  it('of two tabs sends once what both found on the device, one tab at a time', async () => {
    let held: Promise<unknown> = Promise.resolve()
    const locks = { request: (_name: string, work: () => Promise<unknown>) => (held = held.then(work)) }
    vi.stubGlobal('navigator', { locks })
    server(() => {
      throw new TypeError('no network')
    })
    const before = page()
    await before.begin('yard/ines')
    for (const n of [1, 2, 3]) void before.send('defect-step', step('marks'), { n })
    await vi.waitFor(() => expect(before.read().stuck).not.toBeNull())
    close(before)
    let under = 0
    const sent = server(async () => {
      expect(++under).toBe(1)
      await new Promise((done) => setTimeout(done, 5))
      under--
      return yes()
    })
    const tabs = [page(), page()]
    await Promise.all(tabs.map((t) => t.begin('yard/ines')))
    for (const t of tabs) await settled(t)
    expect(sent.map((s) => s.body)).toEqual([{ n: 1 }, { n: 2 }, { n: 3 }])
  })

  it('never sends what somebody else left on a shared device', async () => {
    server(() => {
      throw new TypeError('no network')
    })
    const ines = page()
    await ines.begin('yard/ines')
    void ines.send('defect-step', step('marks'), { of: 'ines' })
    await vi.waitFor(() => expect(ines.read().stuck).not.toBeNull())
    close(ines)
    const sent = server(() => yes())
    const tomas = page()
    await tomas.begin('yard/tomas')
    await tomas.send('defect-step', step('marks'), { of: 'tomas' })
    expect(sent.map((s) => (s.body as { of: string }).of)).toEqual(['tomas'])
    const again = page()
    await again.begin('yard/ines')
    await settled(again)
    expect(sent.map((s) => (s.body as { of: string }).of)).toEqual(['tomas', 'ines'])
  })

  it('keeps an entry through signing off, and sends it only when its owner is back', async () => {
    let away = true
    const sent = server(() => {
      if (away) throw new TypeError('no network')
      return yes()
    })
    const box = page()
    await box.begin('yard/ines')
    void box.send('defect-step', step('marks'), { of: 'ines' })
    await vi.waitFor(() => expect(box.read().stuck).not.toBeNull())
    box.end()
    expect(box.read().waiting).toEqual([])
    // However often it was tried while the records were away.
    sent.length = 0
    away = false
    await box.begin('yard/tomas')
    await box.send('defect-step', step('marks'), { of: 'tomas' })
    expect(sent.map((s) => (s.body as { of: string }).of)).toEqual(['tomas'])
    box.end()
    await box.begin('yard/ines')
    await settled(box)
    expect(sent.map((s) => (s.body as { of: string }).of)).toEqual(['tomas', 'ines'])
  })

  it('waits for a new sign-on instead of throwing an entry away', async () => {
    let signedOn = false
    server(() => (signedOn ? yes() : refusal(401, 'signed-out')))
    const box = page()
    await box.begin('yard/ines')
    const answer = box.send('defect-step', step('marks'), {})
    await vi.waitFor(() => expect(box.read().stuck).toMatch(/Sign on again/))
    signedOn = true
    box.hurry()
    await expect(answer).resolves.toEqual({})
  })

  it('lets the person go on when no answer comes, and sends it all the same, once', async () => {
    let up = false
    const sent = server(() => {
      if (!up) throw new TypeError('no network')
      return yes({ ok: true })
    })
    const box = page()
    await box.begin('yard/ines')
    const answer = await box.sendPatiently('defect-step', step('marks'), { n: 1 })
    expect(answer).toBeNull()
    expect(box.read().waiting).toHaveLength(1)
    up = true
    const before = sent.length
    box.hurry()
    await settled(box)
    expect(sent.length).toBe(before + 1)
    expect(new Set(sent.map((s) => s.key)).size).toBe(1)
  }, 15_000)

  it('answers at once where the network is there, and hands a refusal to who waits', async () => {
    server((s) => ((s.body as { n: number }).n === 1 ? yes({ saved: 1 }) : refusal(422, 'no-reading')))
    const box = page()
    await box.begin('yard/ines')
    expect(await box.sendPatiently('defect-step', step('marks'), { n: 1 })).toEqual({ saved: 1 })
    await expect(box.sendPatiently('defect-step', step('marks'), { n: 2 })).rejects.toBeInstanceOf(ApiError)
    expect(box.read().refused).toEqual([])
  })

  it('keeps what was refused while its maker was gone, also through a restart, until somebody has decided', async () => {
    let up = false
    const sent = server((s) => {
      if (!up) throw new TypeError('no network')
      return (s.body as { replaces?: string }).replaces ? yes() : refusal(409, 'entered-elsewhere')
    })
    const before = page()
    await before.begin('yard/ines')
    expect(await before.sendPatiently('defect-step', step('marks'), { item: 'lean' })).toBeNull()
    close(before)
    up = true
    const after = page()
    await after.begin('yard/ines')
    await vi.waitFor(() => expect(after.read().refused).toHaveLength(1), { timeout: 5000 })
    expect(after.read().refused[0]).toMatchObject({ code: 'entered-elsewhere', body: { item: 'lean' } })
    close(after)
    const again = page()
    await again.begin('yard/ines')
    expect(again.read().refused).toHaveLength(1)
    await again.decide(again.read().refused[0]?.key ?? '', { body: { item: 'lean', replaces: 'x' } })
    await settled(again)
    expect(again.read().refused).toEqual([])
    expect(sent.at(-1)?.body).toEqual({ item: 'lean', replaces: 'x' })
    const last = page()
    await last.begin('yard/ines')
    expect(last.read().refused).toEqual([])
  }, 15_000)

  it('goes on sending where a screen that has to be read again never answers', async () => {
    let up = false
    const sent = server(() => {
      if (!up) throw new TypeError('no network')
      return yes()
    })
    const box = page()
    box.onForgotten = () => new Promise(() => {})
    await box.begin('yard/ines')
    await Promise.all([
      box.sendPatiently('defect-step', step('marks'), { n: 1 }),
      box.sendPatiently('defect-step', step('marks'), { n: 2 }),
    ])
    up = true
    const before = sent.length
    box.hurry()
    await vi.waitFor(() => expect(box.read().waiting).toEqual([]), { timeout: 8000 })
    expect(sent.length).toBe(before + 2)
  }, 20_000)

  it('shows nobody what another left refused on the device', async () => {
    let up = false
    server(() => {
      if (!up) throw new TypeError('no network')
      return refusal(422, 'unknown-item')
    })
    const ines = page()
    await ines.begin('yard/ines')
    await ines.sendPatiently('defect-step', step('marks'), { item: 'x' })
    close(ines)
    up = true
    const back = page()
    await back.begin('yard/ines')
    await vi.waitFor(() => expect(back.read().refused).toHaveLength(1), { timeout: 5000 })
    close(back)
    const tomas = page()
    await tomas.begin('yard/tomas')
    expect(tomas.read().refused).toEqual([])
  }, 15_000)
})
