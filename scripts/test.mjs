// `npm test`: every check, from style to browser, in worlds of its own; ends with the runners' totals.
import { spawnSync } from 'node:child_process'
import { mkdirSync, readFileSync, rmSync } from 'node:fs'
import { join } from 'node:path'
import { stripVTControlCharacters } from 'node:util'
import { ensureBuilt, ensureChromium, ensurePackages, ensurePostgres, root } from './environment.mjs'

ensurePackages()
ensurePostgres()
ensureChromium()
rmSync(join(root, 'test-results'), { recursive: true, force: true })
mkdirSync(join(root, 'test-results'), { recursive: true })

const failed = []
const bin = (path) => join(root, 'node_modules', path)
const step = (name, program, args) => {
  console.log(`\n— ${name}`)
  const done = spawnSync(process.execPath, [program, ...args], { cwd: root, stdio: 'inherit' })
  if (done.status !== 0) failed.push(name)
}
step('style and lint', bin('@biomejs/biome/bin/biome'), ['check', '--error-on-warnings', '.'])
step('the house: who may depend on whom', bin('dependency-cruiser/bin/dependency-cruise.mjs'), [
  '--config',
  '.dependency-cruiser.cjs',
  'core/src',
  'contract/src',
  'server/src',
  'web/src',
])
step('types', bin('typescript/bin/tsc'), ['-p', 'tsconfig.json', '--noEmit'])
step('core, contract, server, web', bin('vitest/vitest.mjs'), [
  'run',
  '--reporter=default',
  '--reporter=json',
  '--outputFile.json=test-results/unit.json',
])
ensureBuilt()
step('through the browser', join(root, 'scripts/e2e.mjs'), [])

const read = (file) => {
  try {
    return JSON.parse(readFileSync(join(root, 'test-results', file), 'utf8'))
  } catch {
    return null
  }
}
const unit = read('unit.json')
const e2e = read('e2e.json')
/** Which tests failed, at the end of what is printed: the beginning may be cut off. */
const wrong = (unit?.testResults ?? []).flatMap((f) => [
  ...(f.status === 'failed' && f.assertionResults.length === 0 ? [`${f.name}: ${f.message}`] : []),
  ...f.assertionResults
    .filter((a) => a.status === 'failed')
    .map((a) => `${f.name.replace(`${root}/`, '')}: ${a.fullName}\n    ${(a.failureMessages[0] ?? '').slice(0, 600)}`),
])
for (const w of wrong) console.log(`failed: ${w}`)
/** What a browser test that failed said and had before it, so that a failure elsewhere can be understood from what was printed. */
const specs = (suite) => [...(suite.specs ?? []), ...(suite.suites ?? []).flatMap(specs)]
const every = (e2e?.suites ?? []).flatMap(specs)
const fallen = every.filter((s) => !s.ok)
const resultsOf = (spec) => spec.tests.flatMap((t) => t.results)
const said = (spec) => (resultsOf(spec)[0]?.errors ?? []).map((e) => stripVTControlCharacters(e.message ?? '')).join('\n')
/** An act waited for the browser's next frame, and none came: what was to be touched stood there. */
const drewNothing = (spec) => /waiting for element to be visible, enabled and stable\s*(\n\s*\d+ \||$)/.test(said(spec))
/** Passed the second time: one in a run whose browser drew nothing the first time is named, and no more; any other is a failure. */
const again = every.filter((s) => s.tests.some((t) => t.status === 'flaky'))
const named = again.filter(drewNothing).slice(0, 1)
const late = again.filter((s) => !named.includes(s))
if (late.length > 0) failed.push(`${late.length} browser tests passed only the second time`)
for (const spec of fallen) {
  const [seen] = resultsOf(spec)
    .flatMap((r) => r.attachments ?? [])
    .filter((a) => a.name === 'error-context' && a.path)
  const page = seen ? (readFileSync(seen.path, 'utf8').split('- main [')[1] ?? '') : ''
  console.log(`before it, ${spec.title}:\n${page.replaceAll(/ \[(ref=\w+|cursor=pointer)\]/g, '').slice(0, 2000)}`)
}
/** The reasons last: only the end of what is printed may be kept. */
for (const spec of [...again, ...fallen]) {
  console.log(
    `${spec.ok ? 'passed the second time' : 'failed'}: ${spec.file} › ${spec.title}, after ${Math.round(resultsOf(spec)[0]?.duration / 1000)} s\n${said(spec).slice(0, 1400)}`,
  )
}
const total = {
  passed: (unit?.numPassedTests ?? 0) + (e2e?.stats?.expected ?? 0) + named.length,
  failed: (unit?.numFailedTests ?? 0) + (e2e?.stats?.unexpected ?? 0) + late.length,
}
if (!unit || !e2e) failed.push('a runner left no totals')
console.log(
  `\nunit tests: ${unit?.numPassedTests ?? 0} passed, ${unit?.numFailedTests ?? 0} failed; browser tests: ${(e2e?.stats?.expected ?? 0) + named.length} passed (${named.length} the second time), ${(e2e?.stats?.unexpected ?? 0) + late.length} failed`,
)
if (failed.length > 0) console.log(`Not right: ${failed.join('; ')}`)
console.log(`total: ${total.passed} passed, ${Math.max(total.failed, failed.length > 0 ? 1 : 0)} failed`)
process.exit(failed.length > 0 ? 1 : 0)
