import { createServer } from 'node:http'
import { fileURLToPath } from 'node:url'
import { makeApp } from './app'
import { Database } from './db/database'
import { demoPeople } from './demo/people'
import { Live } from './live/live'

/** Starts one server process. It holds no state; any number can run against one database. */
function need(name: string): string {
  const v = process.env[name]
  if (!v) {
    console.error(`Set ${name}. “npm run demo” sets everything.`)
    process.exit(2)
  }
  return v
}

const url = need('GEOLABE_DATABASE_URL')
const port = Number(need('GEOLABE_PORT'))
const db = new Database(url)
const live = new Live(url)
const app = makeApp({
  db,
  live,
  web: fileURLToPath(new URL('../../web/dist', import.meta.url)),
  demo: process.env.GEOLABE_DEMO === '1' ? demoPeople() : null,
  secureCookies: process.env.GEOLABE_SECURE === '1',
})
const server = createServer(app)
server.on('error', (e: NodeJS.ErrnoException) => {
  if (e.code === 'EADDRINUSE')
    console.error(`Port ${port} is taken. Stop what uses it, or choose another: GEOLABE_PORT=4801 npm run demo`)
  else console.error(e.message)
  process.exit(1)
})
server.listen(port, '127.0.0.1', () => console.log(`Geolabe is open at http://127.0.0.1:${port}`))

async function stop() {
  server.close()
  await live.end()
  server.closeAllConnections()
  await db.end()
  process.exit(0)
}
process.on('SIGTERM', () => void stop())
process.on('SIGINT', () => void stop())
