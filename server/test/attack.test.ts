import { randomUUID } from 'node:crypto'
import { request } from 'node:http'
import fc from 'fast-check'
import sharp from 'sharp'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { readSettings } from '../src/settings'
import { openBody, type Person, type Running, send, start } from './helper'

/** `npm run attack` runs everything; here a seeded sample, and times are allowed five times over on a busy machine. */
const whole = process.env.GEOLABE_ATTACK === 'whole'
const slack = whole ? 1 : 5

let app: Running
let ines: Person
beforeAll(async () => {
  app = await start()
  await app.freeTern()
  ines = await app.as('Ines Haldane')
})
afterAll(() => app.stop())

/** Bytes as they are, past every client's own care. */
function raw(method: string, path: string, body: Buffer | string, headers: Record<string, string> = {}) {
  const began = performance.now()
  return new Promise<{ status: number; ms: number; text: string }>((resolve, reject) => {
    const url = new URL(`${app.base}/api${path}`)
    const req = request({ host: url.hostname, port: url.port, path: url.pathname + url.search, method, headers }, (res) => {
      let text = ''
      res.on('data', (d) => {
        text += d
      })
      res.on('end', () => resolve({ status: res.statusCode ?? 0, ms: performance.now() - began, text }))
    })
    req.on('error', reject)
    req.end(body)
  })
}

const alive = async () => expect((await send(app.base, 'GET', '/health')).status).toBe(200)

describe('a body meant to break the reader', () => {
  it('nested by the thousand is refused before anything copies it, signed on or not, and the server stays', async () => {
    for (const [open, close] of [
      ['[', ']'],
      ['{"a":', '}'],
    ] as const)
      for (const depth of [61, 1000, 10_000, 100_000]) {
        const body = `${open.repeat(depth)}1${close.repeat(depth)}`
        const json = { 'content-type': 'application/json' }
        const calc = await raw('POST', '/calc/beaufort', body, json)
        expect([calc.status, JSON.parse(calc.text).error.code]).toEqual([400, 'too-deep'])
        expect((await raw('POST', '/session', body, { ...json, 'x-geolabe': '1' })).status).toBeLessThan(500)
        expect((await raw('POST', '/shifts', body, { ...json, 'x-geolabe': '1', cookie: ines.cookie })).status).toBe(400)
      }
    // A deep text is only a text.
    expect((await send(app.base, 'POST', '/calc/beaufort', { speed_mps: 9, note: '['.repeat(5000) })).status).toBe(422)
    await alive()
  })
  it('is not read before sign-on', async () => {
    const big = await raw('POST', '/shifts', Buffer.alloc(3_900_000, 0x20), {
      'content-type': 'application/json',
      'x-geolabe': '1',
    })
    expect(big.status).toBe(401)
  })
  it('in the wrong coding, character set or form is the sender’s fault, never ours', async () => {
    const signed = { cookie: ines.cookie, 'x-geolabe': '1', 'idempotency-key': randomUUID() }
    const json = { ...signed, 'content-type': 'application/json' }
    const photo = `/defects/${randomUUID()}/photos/${randomUUID()}`
    for (const [method, path, body, headers] of [
      ['POST', '/shifts', '{', json],
      ['POST', '/shifts', 'null', json],
      ['POST', '/shifts', '"text"', json],
      ['POST', '/shifts', Buffer.from([0x7b, 0xff, 0xfe, 0x7d]), json],
      ['POST', '/shifts', 'x', { ...json, 'content-encoding': 'gzip' }],
      ['POST', '/shifts', '{}', { ...json, 'content-encoding': 'compress' }],
      ['POST', '/shifts', '{}', { ...json, 'content-type': 'application/json; charset=klingon' }],
      ['PUT', photo, 'x', { ...signed, 'content-type': 'multipart/form-data' }],
      ['PUT', photo, 'x', { ...signed, 'content-type': 'multipart/form-data; boundary=x' }],
      [
        'PUT',
        photo,
        '--x\r\nContent-Disposition: form-data; name="other"; filename="a"\r\n\r\nb\r\n--x--',
        { ...signed, 'content-type': 'multipart/form-data; boundary=x' },
      ],
      ['GET', '/machines/%00', '', signed],
      ['GET', '/machines/%ff', '', signed],
      ['GET', '/defects?machine=a&machine=b', '', signed],
      ['GET', '/defects?grade=%00', '', signed],
      ['GET', '/journal?before=1e308', '', signed],
      ['GET', '/journal?words=%00', '', signed],
      ['GET', '/journal?kind=a&kind=b', '', signed],
      ['GET', '/shifts?before=-1e308', '', signed],
      ['GET', '/inspections?machine=a&machine=b', '', signed],
      ['GET', '/exports/inspections.csv?machine=a&machine=b', '', signed],
    ] as [string, string, string | Buffer, Record<string, string>][]) {
      const r = await raw(method, path, body, headers)
      expect(r.status, `${method} ${path} ${r.text}`).toBeGreaterThanOrEqual(200)
      expect(r.status, `${method} ${path} ${r.text}`).toBeLessThan(500)
    }
  })
})

/** Every write there is, as the routes have it. */
/** Every address that takes a write, of a shift that is open and of a machine and a person that there are. */
const writesThere = (shift: string) => {
  const known: Record<string, string> = { machine: 'tern', shift, table: 'tern-main' }
  return app
    .posts()
    .map((path) =>
      path
        .replace(/^\/(shifts|machines|people|tables|places)\/:id/, (_, of: string) => `/${of}/${first[of] ?? shift}`)
        .replace(/:(\w+)/g, (_, name: string) => known[name] ?? randomUUID()),
    )
}
const first: Record<string, string> = { machines: 'tern', people: 'tomas-brekke', tables: 'tern-main', places: 'north-quay' }

const nasty = fc.oneof(
  fc.constantFrom<unknown>(
    null,
    [],
    {},
    '',
    0,
    -0,
    1e308,
    -1e308,
    5e-324,
    true,
    '\u0000',
    '\ud800',
    '9'.repeat(400),
    'tern',
    '2026-13-45',
  ),
  fc.constantFrom<unknown>(randomUUID(), '2099-01-01T00:00:00Z', '-infinity', "'; drop table shift; --", '__proto__', {
    __proto__: null,
    constructor: 1,
  }),
  fc.string({ maxLength: 40 }),
  fc.double(),
)
const fields = [
  'id',
  'machine',
  'place',
  'shift',
  'item',
  'result',
  'reading',
  'at',
  'plan',
  'events',
  'words',
  'grade',
  'setup',
  'hours',
  'reason',
  'input',
  'calculator',
  'badge',
  'pin',
  'organisation',
  'template',
  'document',
  'round',
  'time',
]
const nastyBody = fc.oneof(
  nasty,
  fc.dictionary(
    fc.constantFrom(...fields),
    fc.oneof(nasty, fc.array(nasty, { maxLength: 4 }), fc.dictionary(fc.constantFrom(...fields), nasty, { maxKeys: 4 })),
    {
      maxKeys: 8,
    },
  ),
)

describe('malformed writes', () => {
  it('get an answer in the fours, soon, from every endpoint', async () => {
    const shift = randomUUID()
    await ines.post('/shifts', openBody(shift))
    expect(writesThere(shift).length).toBeGreaterThan(45)
    const times: number[] = []
    await fc.assert(
      fc.asyncProperty(fc.constantFrom(...writesThere(shift)), nastyBody, async (path, body) => {
        const began = performance.now()
        const r = await send(app.base, 'POST', path, body, { cookie: ines.cookie, 'idempotency-key': randomUUID() })
        times.push(performance.now() - began)
        if (r.status >= 500) throw new Error(`${path} ${JSON.stringify(body)} → ${r.status} ${JSON.stringify(r.body)}`)
      }),
      { numRuns: whole ? 31_000 : 700 },
    )
    expect(Math.max(...times)).toBeLessThan(2000 * slack)
    await app.freeTern()
    await alive()
  }, 600_000)
})

describe('guessing a PIN', () => {
  it('four hundred at once are judged no oftener than one after another, and the owner still gets in on a device of their own', async () => {
    await app.owner.query('delete from throttle')
    const tomas = await app.as('Tomas Brekke')
    const guess = (pin: string) => send(app.base, 'POST', '/session', { organisation: 'skarrow-haven', badge: tomas.badge, pin })
    const answers = await Promise.all(Array.from({ length: whole ? 400 : 150 }, (_, i) => guess(String(1000 + i))))
    const judged = answers.filter((r) => r.status !== 429)
    expect(judged.length).toBeLessThanOrEqual(5)
    expect(answers.every((r) => r.status === 401 || r.status === 429 || r.status === 503)).toBe(true)
    for (const r of answers) if (r.status === 429) expect(Number(r.headers.get('retry-after'))).toBeGreaterThan(0)
    // From a device that Tomas used before.
    const own = await send(
      app.base,
      'POST',
      '/session',
      { organisation: 'skarrow-haven', badge: tomas.badge, pin: tomas.pin },
      { cookie: tomas.cookie },
    )
    expect(own.status).toBe(200)
    // From anywhere else not even the right PIN is judged now.
    expect((await guess(tomas.pin)).status).toBe(429)
    await app.owner.query('delete from throttle')
  })
  it('one address may not use up the tries of a yard that has its own devices', async () => {
    const wil = await app.as('Wilhelmina Osei')
    await Promise.all(
      Array.from({ length: 60 }, (_, i) =>
        send(app.base, 'POST', '/session', { organisation: 'skarrow-haven', badge: `none-${i}`, pin: '0000' }),
      ),
    )
    expect((await send(app.base, 'POST', '/session', { organisation: 'skarrow-haven', badge: 'x', pin: '1' })).status).toBe(429)
    const own = await send(
      app.base,
      'POST',
      '/session',
      { organisation: 'skarrow-haven', badge: wil.badge, pin: wil.pin },
      { cookie: wil.cookie },
    )
    expect(own.status).toBe(200)
    await app.owner.query('delete from throttle')
  })
})

describe('pictures', () => {
  const noise = (w: number, h: number, depth: 8 | 16 = 8) =>
    sharp(Buffer.alloc(w * h * 3, 0x7f), { raw: { width: w, height: h, channels: 3 } })
      .toColourspace(depth === 16 ? 'rgb16' : 'srgb')
      .png({ compressionLevel: 9 })
      .toBuffer()
  const put = async (bytes: Buffer, type = 'image/jpeg') => {
    const id = randomUUID()
    await ines.post('/defects', {
      id,
      machine: 'heron',
      shift: null,
      item: null,
      where: 'mirror',
      words: 'cracked',
      grade: 'watch',
    })
    const form = new FormData()
    form.append('photo', new Blob([new Uint8Array(bytes)], { type }), 'p')
    const began = performance.now()
    const r = await ines.put(`/defects/${id}/photos/${randomUUID()}`, form)
    return { status: r.status, ms: performance.now() - began }
  }
  it('that are none, lie about themselves or are bombs are refused in time, and hold up nobody else', async () => {
    const good = await noise(640, 480)
    const jpeg = await sharp(good).jpeg().toBuffer()
    const svg = Buffer.from(
      '<svg xmlns="http://www.w3.org/2000/svg" width="7000" height="7000"><filter id="f"><feTurbulence baseFrequency="0.9" numOctaves="9"/></filter><rect width="7000" height="7000" filter="url(#f)"/></svg>',
    )
    const hostile: [string, Buffer][] = [
      ['an SVG with a filter', svg],
      ['an SVG behind a JPEG’s first bytes', Buffer.concat([Buffer.from([0xff, 0xd8, 0xff, 0xe0]), svg])],
      [
        'a flat PNG of a hundred megapixels',
        await sharp({ create: { width: 12_000, height: 9000, channels: 3, background: '#888' } })
          .png()
          .toBuffer(),
      ],
      ['a JPEG cut short', jpeg.subarray(0, jpeg.length - 400)],
      ['a GIF', await sharp(good).gif().toBuffer()],
      ['a TIFF', await sharp(good).tiff().toBuffer()],
      ['a web page', Buffer.from('<html><script>alert(1)</script></html>')],
      ['nothing', Buffer.alloc(0)],
      ['a PNG’s head alone', Buffer.from('\x89PNG\r\n\x1a\n', 'latin1')],
    ]
    for (const [what, bytes] of hostile) {
      const asked: number[] = []
      let done = false
      const watching = (async () => {
        while (!done) {
          const began = performance.now()
          await send(app.base, 'GET', '/ready')
          asked.push(performance.now() - began)
          await new Promise((r) => setTimeout(r, 20))
        }
      })()
      const r = await put(bytes)
      done = true
      await watching
      expect(r.status, what).toBe(422)
      expect(r.ms, what).toBeLessThan(2300 * slack)
      expect(Math.max(0, ...asked), what).toBeLessThan(200 * slack)
    }
  }, 120_000)
  it('that are real are kept as plain JPEG without their metadata, whatever they came as', async () => {
    const secret = await sharp(await noise(900, 600))
      .withExif({ IFD0: { Copyright: 'where I live' } })
      .jpeg()
      .toBuffer()
    for (const bytes of [
      secret,
      await noise(300, 200, 16),
      await sharp(await noise(300, 200))
        .webp()
        .toBuffer(),
      Buffer.concat([secret, Buffer.from('<script>alert(1)</script>')]),
    ])
      expect((await put(bytes)).status).toBe(200)
    const kept = await app.owner.query<{ bytes: Buffer }>(
      "select p.bytes from photo p join defect d on d.org = p.org and d.id = p.defect where d.machine = 'heron'",
    )
    expect(kept.rows.length).toBeGreaterThanOrEqual(4)
    for (const { bytes } of kept.rows) {
      const m = await sharp(bytes).metadata()
      expect([m.format, m.exif]).toEqual(['jpeg', undefined])
      expect(bytes.includes('script')).toBe(false)
      expect(bytes.includes('where I live')).toBe(false)
    }
  }, 60_000)
})

describe('writes under one id', () => {
  it('with another body, or from somebody else, are refused loudly; the same again is answered again', async () => {
    const key = randomUUID()
    const note = { id: randomUUID(), machine: 'heron', shift: null, item: null, where: 'lamp', words: 'dim', grade: 'watch' }
    const first = await ines.post('/defects', note, key)
    expect(first.status).toBe(200)
    expect((await ines.post('/defects', { ...note }, key)).body).toEqual(first.body)
    const shuffled = Object.fromEntries(Object.entries(note).reverse())
    expect((await ines.post('/defects', shuffled, key)).body).toEqual(first.body)
    const other = await ines.post('/defects', { ...note, words: 'brakes fail' }, key)
    expect([other.status, other.body.error.code]).toEqual([409, 'key-used'])
    const tomas = await app.as('Tomas Brekke')
    expect((await tomas.post('/defects', note, key)).status).toBe(409)
  })
})

describe('sessions', () => {
  it('end their event stream with them', async () => {
    const p = await app.as('Rafiq Dunmore')
    const stream = await fetch(`${app.base}/api/live`, { headers: { cookie: p.cookie } })
    const reader = (stream.body as ReadableStream<Uint8Array>).getReader()
    await reader.read()
    await send(app.base, 'DELETE', '/session', undefined, { cookie: p.cookie })
    const ended = (async () => {
      for (;;) if ((await reader.read()).done) return 'ended'
    })()
    expect(await Promise.race([ended, new Promise((r) => setTimeout(() => r('still open'), 1500 * slack))])).toBe('ended')
  })
  it('that lie idle are over', async () => {
    const p = await app.as('Rafiq Dunmore')
    expect((await p.get('/session')).status).toBe(200)
    await app.owner.query("update session set used_at = now() - interval '7 hours' where person = 'rafiq-dunmore'")
    expect((await p.get('/session')).status).toBe(401)
  })
  it('say nothing to keep, and carry strict names and policies', async () => {
    const r = await ines.get('/session')
    expect(r.headers.get('cache-control')).toBe('no-store')
    expect(r.headers.get('permissions-policy')).toContain('geolocation=()')
    expect(r.headers.get('content-security-policy')).not.toContain('unsafe-inline')
    const strict = await start({ secure: true })
    try {
      const on = await send(strict.base, 'POST', '/session', { organisation: 'skarrow-haven', badge: ines.badge, pin: ines.pin })
      for (const c of on.headers.getSetCookie()) expect(c).toMatch(/^__Host-.*HttpOnly; Secure; SameSite=Strict|^__Host-/)
      expect(on.headers.getSetCookie()).toHaveLength(2)
    } finally {
      await strict.stop()
    }
  })
  it('are not answered under another host’s name', async () => {
    const r = await raw('GET', '/health', '', { host: 'evil.example' })
    expect(r.status).toBe(421)
  })
})

describe('settings', () => {
  const url = 'postgres://a:b@127.0.0.1:5432/x'
  const good = { GEOLABE_DATABASE_URL: url, GEOLABE_DOOR_URL: url, GEOLABE_KEY_FILE: '/tmp/key', GEOLABE_PORT: '4800' }
  it('that are wrong are named, with what they should be', () => {
    expect(readSettings(good)).toMatchObject({ port: 4800, secure: false, hosts: [] })
    for (const [name, value] of [
      ['GEOLABE_PORT', 'eighty'],
      ['GEOLABE_PORT', '70000'],
      ['GEOLABE_DATABASE_URL', 'mysql://x'],
      ['GEOLABE_SECURE', 'yes'],
      ['GEOLABE_IDLE_HOURS', '-1'],
    ])
      expect(() => readSettings({ ...good, [name as string]: value })).toThrow(name)
    expect(() => readSettings({})).toThrow(/GEOLABE_DATABASE_URL is not set/)
  })
})
