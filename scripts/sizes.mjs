// `npm run sizes`: compressed script of the first screen and of each later route, from what was built. Limits by design: 150 kB and
// 60 kB; the chart library is one shared piece, loaded after a route has drawn, and is not counted.
import { existsSync, readFileSync, statSync } from 'node:fs'
import { join } from 'node:path'
import { pathToFileURL } from 'node:url'
import { ensureBuilt, root } from './environment.mjs'

const limits = { first: 150_000, route: 60_000 }

/** As it is sent; a piece of a few words is not packed. */
const packed = (file) => statSync(existsSync(`${file}.br`) ? `${file}.br` : file).size

/** Compressed bytes by route; `chart` pieces left out. */
export function measure(dist = join(root, 'web/dist')) {
  const manifest = JSON.parse(readFileSync(join(dist, '.vite/manifest.json'), 'utf8'))
  const entry = Object.keys(manifest).find((k) => manifest[k].isEntry)
  const isChart = (key) => /recharts|LineChart|rating-chart|reading-chart|charts?-/.test(manifest[key].file)
  const reach = (key, found = new Set()) => {
    if (found.has(key)) return found
    found.add(key)
    for (const next of manifest[key].imports ?? []) reach(next, found)
    return found
  }
  const bytes = (keys) =>
    [...keys].filter((k) => manifest[k].file.endsWith('.js')).reduce((s, k) => s + packed(join(dist, manifest[k].file)), 0)
  // The language comes before the screens; what the entry then asks for at once belongs to the first screen.
  const start = Object.keys(manifest).find((k) => k.endsWith('src/start.tsx'))
  const first = new Set([...reach(entry), ...reach(start)])
  // The frame that every screen after sign-on stands in is a step of its own.
  const frame = Object.keys(manifest).find((k) => k.endsWith('session/shell.tsx'))
  const framed = new Set([...first, ...reach(frame)])
  const routes = (manifest[start].dynamicImports ?? []).map((key) => {
    const own = [...reach(key)].filter((k) => !(key === frame ? first : framed).has(k) && !isChart(k))
    return { route: key.replace(/^(\.\/)?src\//, ''), bytes: bytes(own) }
  })
  return { first: bytes(first), routes: routes.sort((a, b) => b.bytes - a.bytes) }
}

if (import.meta.url === pathToFileURL(process.argv[1] ?? '').href) {
  ensureBuilt()
  const { first, routes } = measure()
  const kB = (n) => `${(n / 1000).toFixed(1)} kB`
  console.log(`first screen ${kB(first)} (at most ${kB(limits.first)})`)
  for (const r of routes) console.log(`  ${r.route.padEnd(40)} ${kB(r.bytes)}${r.bytes > limits.route ? '  OVER' : ''}`)
  process.exit(first > limits.first || routes.some((r) => r.bytes > limits.route) ? 1 : 0)
}
