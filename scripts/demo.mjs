// `npm run demo`: everything a fresh machine needs, then the app with its demo data on one loopback address.
// `npm run demo -- --fresh` begins anew.
import { spawn } from 'node:child_process'
import { rmSync } from 'node:fs'
import { dataFolder, ensureBuilt, ensureCluster, ensurePackages, fail, portFree, root, runCommand } from './environment.mjs'

const port = Number(process.env.GEOLABE_PORT ?? 4800)
const folder = dataFolder('demo')

if (!(await portFree(port))) {
  const ours = await fetch(`http://127.0.0.1:${port}/api/demo`).then(
    (r) => r.ok,
    () => false,
  )
  fail(
    ours
      ? `Geolabe is open already at http://127.0.0.1:${port}. Stop that one first (Ctrl-C where it runs), or choose another port: GEOLABE_PORT=${port + 1} npm run demo`
      : `Port ${port} is taken by something else. Choose another: GEOLABE_PORT=${port + 1} npm run demo`,
  )
}
ensurePackages()
const pgPort = Number(process.env.GEOLABE_PG_PORT ?? 54800)
if (process.argv.includes('--fresh')) {
  console.log('Beginning anew.')
  const old = await ensureCluster(folder, pgPort)
  old.stop('immediate')
  rmSync(folder, { recursive: true, force: true })
}
const cluster = await ensureCluster(folder, pgPort)
const done = runCommand('setup-database', ['geolabe', 'demo'], cluster.environment)
if (done.status !== 0) fail('The database could not be brought up to date; see above.')
ensureBuilt()
const server = spawn(process.execPath, ['--import', 'tsx', 'server/src/main.ts'], {
  cwd: root,
  stdio: 'inherit',
  env: { ...process.env, ...cluster.serverEnvironment('geolabe'), GEOLABE_PORT: String(port), GEOLABE_DEMO: '1' },
})
let stopping = false
for (const signal of ['SIGINT', 'SIGTERM']) {
  process.on(signal, () => {
    stopping = true
    server.kill('SIGTERM')
  })
}
server.on('exit', (code) => {
  cluster.stop()
  process.exit(stopping ? 0 : (code ?? 1))
})
