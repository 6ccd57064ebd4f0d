import { type MutationBody, type MutationName, mutations, pathOf } from '@geolabe/contract'
import { type DBSchema, type IDBPDatabase, openDB } from 'idb'
import { t } from '../language/t'
import { ApiError, call, newId } from './client'

/** A write on its way: kept on the device before it is sent, until the server has said that it stands or refused it. */
export interface Waiting<N extends MutationName = MutationName> {
  key: string
  order: number
  /** The person it belongs to: nobody sends another's entries. */
  owner: string
  what: N
  /** Where in the records it belongs: `shift`, `defect` … */
  params: Readonly<Record<string, string>>
  body: MutationBody<N>
  /** When it was made, by this device. */
  at: string
}

/** A write that was refused while whoever made it was gone: told, and kept until somebody has decided. */
export interface RefusedWrite extends Waiting {
  why: string
  code: string
}

interface Kept extends DBSchema {
  outbox: { key: string; value: Waiting; indexes: { 'by-order': number } }
  refused: { key: string; value: RefusedWrite }
}

type Settle = { resolve: (answer: unknown) => void; reject: (e: unknown) => void }

/** Without an answer for this long the person goes on. */
const patience_ms = 1200

/** Waits for something that is good to have first, and not longer: neither a slow store nor a slow screen holds up what is sent. */
const patiently = (work: Promise<unknown> | undefined) =>
  Promise.race([work, new Promise((done) => setTimeout(done, patience_ms))])

/**
 * Sends writes in the order they were made, exactly once as far as anyone can tell: each carries its own id, and the
 * server answers a repeated id without doing it again. A write that gets no answer stays and is sent again, also after
 * the page, the browser or the device was restarted; a write that is refused is handed back to whoever made it.
 */
export class Outbox {
  private waiting: Waiting[] = []
  private readonly settles = new Map<string, Settle>()
  private readonly listeners = new Set<() => void>()
  private owner: string | null = null
  private running = false
  private timer: ReturnType<typeof setTimeout> | null = null
  private backoff_ms = 1000
  /** Writes still being put down on the device: none is sent before it is kept, unless the device takes too long over it. */
  private readonly keeping = new Map<string, Promise<unknown>>()
  /** Told when a write got through whose maker is gone (the page was reloaded meanwhile), before it leaves the list. */
  onForgotten: (w: Waiting) => Promise<unknown> = async () => {}
  private refused: RefusedWrite[] = []
  private snapshot: { waiting: readonly Waiting[]; stuck: string | null; refused: readonly RefusedWrite[] } = {
    waiting: [],
    stuck: null,
    refused: [],
  }
  private readonly db: Promise<IDBPDatabase<Kept> | null>

  constructor() {
    this.db = openDB<Kept>('geolabe', 3, {
      upgrade: (db, from, _to, tx) => {
        if (from < 1) db.createObjectStore('outbox', { keyPath: 'key' }).createIndex('by-order', 'order')
        if (from < 2) db.createObjectStore('refused', { keyPath: 'key' })
        // Kept by path in earlier versions: what is left of it cannot be sent any more.
        if (from === 1 || from === 2) for (const store of ['outbox', 'refused'] as const) void tx.objectStore(store).clear()
      },
    }).catch(() => null)
    globalThis.addEventListener?.('online', () => this.hurry())
  }

  subscribe = (listener: () => void) => {
    this.listeners.add(listener)
    return () => this.listeners.delete(listener)
  }
  read = () => this.snapshot

  private tell(stuck: string | null = this.snapshot.stuck) {
    this.snapshot = { waiting: [...this.waiting], stuck: this.waiting.length === 0 ? null : stuck, refused: [...this.refused] }
    for (const l of this.listeners) l()
  }

  /** Takes up what this person left unsent. */
  async begin(owner: string): Promise<void> {
    if (this.owner === owner) return
    this.owner = owner
    const all = (await (await this.db)?.getAllFromIndex('outbox', 'by-order')) ?? []
    this.refused = ((await (await this.db)?.getAll('refused')) ?? []).filter((w) => w.owner === owner)
    const known = new Set(this.waiting.map((w) => w.key))
    this.waiting = [
      ...all.filter((w) => w.owner === owner && !known.has(w.key)),
      ...this.waiting.filter((w) => w.owner === owner),
    ]
    this.tell()
    this.hurry()
  }

  /** Signed off: what is unsent stays on the device for its owner, and nothing goes out under the next one's name. */
  end(): void {
    this.owner = null
    this.waiting = []
    this.refused = []
    if (this.timer) clearTimeout(this.timer)
    this.timer = null
    this.tell(null)
  }

  /** Keeps a write and sends it. Resolves with the answer; rejects only when the server refused it. */
  async send<T, N extends MutationName = MutationName>(
    what: N,
    params: Readonly<Record<string, string>>,
    body: MutationBody<N>,
  ): Promise<T> {
    const w: Waiting<N> = {
      key: newId(),
      order: Date.now() + this.waiting.length / 1000,
      owner: this.owner ?? '',
      what,
      params,
      body,
      at: new Date().toISOString(),
    }
    const answer = new Promise<T>((resolve, reject) => {
      this.settles.set(w.key, { resolve: resolve as (a: unknown) => void, reject })
    })
    this.keeping.set(
      w.key,
      this.db.then((db) => db?.put('outbox', w)).catch(() => {}),
    )
    this.waiting.push(w)
    this.tell()
    void this.run()
    return answer
  }

  /**
   * Keeps a write, sends it, and waits a moment for the answer. Without one (null) the work goes on: the write stays and is
   * sent later, and if it is refused then, that is told like a refusal after a restart.
   */
  async sendPatiently<T, N extends MutationName = MutationName>(
    what: N,
    params: Readonly<Record<string, string>>,
    body: MutationBody<N>,
  ): Promise<T | null> {
    const sent = this.send<T, N>(what, params, body)
    const key = this.waiting.at(-1)?.key
    let timer: ReturnType<typeof setTimeout> | undefined
    const late = new Promise<null>((resolve) => {
      timer = setTimeout(() => {
        if (key) this.settles.delete(key)
        resolve(null)
      }, patience_ms)
    })
    try {
      return await Promise.race([sent, late])
    } finally {
      clearTimeout(timer)
    }
  }

  /** Resolves when the records have decided about all that was entered before: what rests on it is asked for only then. */
  allSent(): Promise<void> {
    const before = new Set(this.waiting.map((w) => w.key))
    const isSent = () => !this.waiting.some((w) => before.has(w.key))
    return new Promise((resolve) => {
      if (isSent()) return resolve()
      const stop = this.subscribe(() => {
        if (!isSent()) return
        stop()
        resolve()
      })
    })
  }

  hurry() {
    this.backoff_ms = 1000
    if (this.timer) clearTimeout(this.timer)
    this.timer = null
    void this.run()
  }

  /** One tab of a device sends at a time: what another is sending is not sent beside it. */
  private async run(): Promise<void> {
    if (this.running || this.timer) return
    this.running = true
    try {
      const { locks } = globalThis.navigator ?? {}
      if (locks) await locks.request('geolabe.outbox', () => this.sendAll())
      else await this.sendAll()
    } finally {
      this.running = false
    }
    // What was entered while the lock was being given back.
    if (this.waiting.length > 0 && !this.timer) void this.run()
  }

  private async sendAll(): Promise<void> {
    for (let w = this.waiting[0]; w; w = this.waiting[0]) {
      await patiently(this.keeping.get(w.key))
      this.keeping.delete(w.key)
      // Another tab of this device may have sent it meanwhile.
      if (!this.settles.has(w.key) && (await this.isSentElsewhere(w.key))) {
        await patiently(this.onForgotten(w))
      } else {
        try {
          const { method } = mutations[w.what]
          const answer = await call({ method, path: pathOf(w.what, w.params), body: w.body, key: w.key })
          // Asked for only now: its maker may have gone on meanwhile.
          const maker = this.settles.get(w.key)
          // Its maker hears first and takes it over; only then does it leave the list, so that nothing blinks out between.
          if (maker) maker.resolve(answer)
          else await patiently(this.onForgotten(w))
        } catch (e) {
          if (this.isWorthAnotherTry(e)) return
          const maker = this.settles.get(w.key)
          if (maker) maker.reject(e)
          else await this.keepRefused(w, e as ApiError)
        }
      }
      await this.settled(w)
      this.settles.delete(w.key)
      this.backoff_ms = 1000
    }
  }

  /** Tells why nothing goes out, and tries again later; false where the records have decided against it. */
  private isWorthAnotherTry(e: unknown): boolean {
    if (e instanceof ApiError && !e.retryable && e.status !== 401) return false
    this.tell(e instanceof ApiError && e.status === 401 ? t`Sign on again to send it.` : (e as Error).message)
    this.timer = setTimeout(() => {
      this.timer = null
      void this.run()
    }, this.backoff_ms)
    this.backoff_ms = Math.min(15_000, this.backoff_ms * 1.7)
    return true
  }

  private async isSentElsewhere(key: string): Promise<boolean> {
    const db = await this.db
    return db !== null && (await db.getKey('outbox', key).catch(() => key)) === undefined
  }

  private async keepRefused(w: Waiting, e: ApiError) {
    const r: RefusedWrite = { ...w, why: e.body.message, code: e.body.code }
    await (await this.db)?.put('refused', r).catch(() => {})
    this.refused.push(r)
  }

  /** What was refused has been decided: sent anew as somebody now means it, or let go. */
  async decide(key: string, again: { body: MutationBody<MutationName> } | null): Promise<void> {
    const r = this.refused.find((x) => x.key === key)
    if (!r) return
    // The new one is kept before the old one goes: nothing is lost between.
    const sent = again ? this.send(r.what, r.params, again.body) : null
    await (await this.db)?.delete('refused', key)
    this.refused = this.refused.filter((x) => x.key !== key)
    this.tell()
    await sent
  }

  private async settled(w: Waiting) {
    await (await this.db)?.delete('outbox', w.key)
    this.waiting = this.waiting.filter((x) => x.key !== w.key)
    this.tell(null)
  }
}

export const outbox = new Outbox()
