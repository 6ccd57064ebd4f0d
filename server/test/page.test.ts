import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, expect, inject, it } from 'vitest'
import { serve } from './helper'

const web = mkdtempSync(join(tmpdir(), 'geolabe-web-'))
writeFileSync(join(web, 'index.html'), '<meta name="style-nonce" content="%NONCE%" />')
let app: Awaited<ReturnType<typeof serve>>
beforeAll(async () => {
  app = await serve(inject('databaseUrl'), { web }, inject('doorUrl'))
})
afterAll(async () => {
  await app.stop()
  rmSync(web, { recursive: true })
})

it('the page carries the word that its own policy lets styles by, by whatever address it is asked for, a new one each time', async () => {
  const words = await Promise.all(
    ['/', '/index.html', '/shifts/1/prove'].map(async (path) => {
      const answer = await fetch(`${app.base}${path}`)
      expect(answer.headers.get('cache-control'), path).toBe('no-cache')
      const word = /content="([^"]+)"/.exec(await answer.text())?.[1]
      expect(answer.headers.get('content-security-policy'), path).toContain(`'nonce-${word}'`)
      return word
    }),
  )
  expect(new Set(words).size).toBe(3)
})
