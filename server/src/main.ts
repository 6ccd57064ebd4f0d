import { createServer } from 'node:http'
import { fileURLToPath } from 'node:url'
import { makeApp } from './app'
import { calcPool } from './calc/pool'
import { Database } from './db/database'
import { demoPeople } from './demo/people'
import { keptSealing } from './key/sealing'
import { keptKey } from './key/signing'
import { Live } from './live/live'
import { Photos } from './photos/photos'
import { readSettings, type Settings } from './settings'

/** Starts one server process. It holds no state; any number can run against one database. */
function settingsOrExit(): Settings {
  try {
    return readSettings(process.env)
  } catch (e) {
    console.error((e as Error).message)
    process.exit(2)
  }
}

// Nothing that one request does ends the process; what was not foreseen is written down.
process.on('unhandledRejection', (e) => console.error('unhandled rejection', e))
process.on('uncaughtException', (e) => console.error('uncaught exception', e))

const settings = settingsOrExit()
const { port } = settings
const db = new Database(settings.databaseUrl)
const door = new Database(settings.doorUrl, 4)
const live = new Live(settings.databaseUrl, settings.idleHours)
const [calc, photos] = [calcPool(), new Photos()]
let serving = true
const app = makeApp({
  ...settings,
  db,
  door,
  signing: keptKey(settings.keyFile),
  sealing: keptSealing(`${settings.keyFile}.sealing`),
  live,
  calc,
  photos,
  web: fileURLToPath(new URL('../../web/dist', import.meta.url)),
  demo: settings.demo ? demoPeople() : null,
  serving: () => serving,
})
const server = createServer({ requestTimeout: 60_000, headersTimeout: 15_000, maxHeaderSize: 16_384 }, app)
server.on('error', (e: NodeJS.ErrnoException) => {
  if (e.code === 'EADDRINUSE')
    console.error(`Port ${port} is taken. Stop what uses it, or choose another: GEOLABE_PORT=4801 npm run demo`)
  else console.error(e.message)
  process.exit(1)
})
server.listen(port, '127.0.0.1', () => console.log(`Geolabe is open at http://127.0.0.1:${port}`))

const prune = setInterval(() => void db.query('select prune()').catch(() => {}), 3_600_000)
prune.unref()

/** What is under way may end, for so long; streams are closed, nothing new is taken. */
const patience_ms = 8000

async function stop() {
  if (!serving) return
  serving = false
  const done = new Promise<void>((resolve) => server.close(() => resolve()))
  await live.end()
  server.closeIdleConnections()
  await Promise.race([done, new Promise((resolve) => setTimeout(resolve, patience_ms).unref())])
  server.closeAllConnections()
  await Promise.race([
    Promise.allSettled([db.end(), door.end(), calc.end(), photos.end()]),
    new Promise((resolve) => setTimeout(resolve, 3000).unref()),
  ])
  process.exit(0)
}
process.on('SIGTERM', () => void stop())
process.on('SIGINT', () => void stop())
