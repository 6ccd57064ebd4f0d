import { type ChildProcess, spawn } from 'node:child_process'
import { createServer } from 'node:net'
import { expect, test } from '@playwright/test'
import pg from 'pg'
import { enterInOrder, freeTern, items, signOn, takeTern } from './work'

test.beforeEach(freeTern)

async function freePort(): Promise<number> {
  return new Promise((resolve) => {
    const s = createServer().listen(0, '127.0.0.1', () => {
      const a = s.address()
      s.close(() => resolve(typeof a === 'object' && a ? a.port : 0))
    })
  })
}

/** A second server process on the same database, to be killed. */
async function startServer(port: number): Promise<ChildProcess> {
  const child = spawn(process.execPath, ['--import', 'tsx', 'server/src/main.ts'], {
    stdio: 'ignore',
    env: { ...process.env, GEOLABE_PORT: String(port), GEOLABE_DEMO: '1' },
  })
  for (let i = 0; i < 150; i++) {
    if (
      await fetch(`http://127.0.0.1:${port}/api/demo`).then(
        (r) => r.ok,
        () => false,
      )
    )
      return child
    await new Promise((r) => setTimeout(r, 200))
  }
  throw new Error('the second server did not open')
}

test('killing the server in the middle of a walk-round loses nothing that was shown as saved, nor what was tapped after', async ({
  browser,
}) => {
  const port = await freePort()
  let server = await startServer(port)
  const context = await browser.newContext({ baseURL: `http://127.0.0.1:${port}` })
  const page = await context.newPage()
  try {
    await signOn(page, 'Tomas Brekke')
    await takeTern(page)
    await page.getByRole('button', { name: 'Isolated and tagged, begin' }).click()
    for (const item of items.slice(0, 6)) await enterInOrder(page, item)
    await expect(page.getByText(`6 of ${items.length} looked at`, { exact: true })).toBeVisible()
    server.kill('SIGKILL')
    for (const item of items.slice(6, 10)) await enterInOrder(page, item)
    await expect(page.getByText(/4 entries are kept on this device/)).toBeVisible()
    await expect(page.getByText(`10 of ${items.length} looked at, 4 still on their way`)).toBeVisible()

    server = await startServer(port)
    await expect(page.getByText(`10 of ${items.length} looked at`, { exact: true })).toBeVisible({ timeout: 30_000 })
    await page.reload()
    await expect(page.getByText(`10 of ${items.length} looked at`, { exact: true })).toBeVisible()
    const owner = new pg.Client({ connectionString: process.env.GEOLABE_OWNER_URL, options: '-c search_path=geolabe' })
    await owner.connect()
    const written = await owner.query(
      "select item, count(*) as times from (select body->>'item' as item from journal where kind = 'inspection-entry' and subject = (select id::text from shift where closed_at is null)) j group by item",
    )
    await owner.end()
    expect(written.rows).toHaveLength(10)
    expect(written.rows.every((r) => Number(r.times) === 1)).toBe(true)
  } finally {
    server.kill('SIGKILL')
    await context.close()
  }
})

test('what is tapped while the records are away outlives a reload of the page', async ({ page }) => {
  await signOn(page, 'Ines Haldane')
  await takeTern(page)
  await page.getByRole('button', { name: 'Isolated and tagged, begin' }).click()
  await enterInOrder(page, items[0] as (typeof items)[number])
  await expect(page.getByText(`1 of ${items.length} looked at`, { exact: true })).toBeVisible()
  // The server answers as it does when its database is dead.
  await page.route('**/entries', (route) =>
    route.fulfill({
      status: 503,
      contentType: 'application/json',
      body: JSON.stringify({
        error: {
          code: 'database-away',
          message: 'The records cannot be reached just now. What you entered stays on this device and is sent again.',
          path: '',
        },
      }),
    }),
  )
  for (const item of items.slice(1, 4)) await enterInOrder(page, item)
  await expect(page.getByText('The records cannot be reached just now.')).toBeVisible()
  await page.reload()
  await expect(page.getByText(/4 of \d+ looked at/)).toBeVisible()
  await page.unroute('**/entries')
  await expect(page.getByText(`4 of ${items.length} looked at`, { exact: true })).toBeVisible({ timeout: 30_000 })
})

test('what was typed at a set-up outlives a reload', async ({ page }) => {
  await signOn(page, 'Ines Haldane')
  await takeTern(page)
  await page.getByRole('link', { name: /Stow & hand over/ }).click()
  await page.getByLabel('Words for the next person').fill('Half a sentence')
  await page.reload()
  await expect(page.getByLabel('Words for the next person')).toHaveValue('Half a sentence')
})
