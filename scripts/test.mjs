// `npm test`: every check, from style to browser, in worlds of its own; ends with the runners' totals.
import { spawnSync } from 'node:child_process'
import { mkdirSync, readFileSync, rmSync } from 'node:fs'
import { join } from 'node:path'
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
const total = {
  passed: (unit?.numPassedTests ?? 0) + (e2e?.stats?.expected ?? 0),
  failed: (unit?.numFailedTests ?? 0) + (e2e?.stats?.unexpected ?? 0) + (e2e?.stats?.flaky ?? 0),
}
if (!unit || !e2e) failed.push('a runner left no totals')
console.log(
  `\nunit tests: ${unit?.numPassedTests ?? 0} passed, ${unit?.numFailedTests ?? 0} failed; browser tests: ${e2e?.stats?.expected ?? 0} passed, ${e2e?.stats?.unexpected ?? 0} failed`,
)
if (failed.length > 0) console.log(`Not right: ${failed.join('; ')}`)
console.log(`total: ${total.passed} passed, ${Math.max(total.failed, failed.length > 0 ? 1 : 0)} failed`)
process.exit(failed.length > 0 ? 1 : 0)
