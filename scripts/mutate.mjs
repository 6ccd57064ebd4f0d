// `npm run mutate [mutants] [seed]`: changes the core at random places, one at a time, and asks whether its tests notice. The
// places are a seeded sample of lines, so that a run can be repeated; survivors are listed at the end.
import { spawnSync } from 'node:child_process'
import { readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { ensurePackages, root } from './environment.mjs'

ensurePackages()
const lines = Number(process.argv[2] ?? 60)
const seed = Number(process.argv[3] ?? 7)
const least_share = 0.85
/** Folders of core that compute; the rest declares data and says words. */
const computing = [
  'assess',
  'calculator',
  'check',
  'clearance',
  'defect',
  'due',
  'finding',
  'ground',
  'hydraulic',
  'inspection',
  'levelling',
  'lift',
  'load',
  'parts',
  'plane',
  'rating',
  'recovery',
  'remedy',
  'rigging',
  'statics',
  'swing',
  'truck',
  'uncertainty',
  'wear',
  'wind',
  'working-area',
]

/** A repeatable stream of numbers in [0, 1). */
let state = seed >>> 0
const random = () => {
  state = (state + 0x6d2b79f5) >>> 0
  let t = Math.imul(state ^ (state >>> 15), 1 | state)
  t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t
  return ((t ^ (t >>> 14)) >>> 0) / 4294967296
}

const computes = /[-+*/%<>]=?|&&|\|\||Math\.|\?|return/
const skip =
  /^\s*(\/\/|\*|\/\*|import|export \*|label:|formula:|describe|notes?:|cautions?:|source:|type |interface )|message|Refusal|z\./
const places = computing.flatMap((folder) =>
  readdirSync(join(root, 'core/src', folder), { recursive: true })
    .filter((f) => f.endsWith('.ts'))
    .sort()
    .flatMap((f) => {
      const path = `core/src/${folder}/${f}`
      return readFileSync(join(root, path), 'utf8')
        .split('\n')
        .flatMap((text, i) => (computes.test(text) && !skip.test(text) ? [`${path}:${i + 1}-${i + 1}`] : []))
    }),
)
const chosen = new Set()
while (chosen.size < Math.min(lines, places.length)) chosen.add(places[Math.floor(random() * places.length)])

const config = join(tmpdir(), `geolabe-mutate-${process.pid}.json`)
const report = join(tmpdir(), `geolabe-mutate-${process.pid}-report.json`)
writeFileSync(
  config,
  JSON.stringify({
    testRunner: 'vitest',
    vitest: { configFile: 'vitest.mutate.config.ts' },
    plugins: ['@stryker-mutator/vitest-runner'],
    mutate: [...chosen],
    // Words are not figures; a ?. at a place that is always there is written for the compiler.
    mutator: { excludedMutations: ['OptionalChaining', 'StringLiteral', 'ObjectLiteral', 'ArrayDeclaration', 'Regex'] },
    reporters: ['clear-text', 'json', 'progress-append-only'],
    clearTextReporter: { logTests: false, reportTests: false, allowColor: false },
    jsonReporter: { fileName: report },
    coverageAnalysis: 'perTest',
    concurrency: Number(process.env.GEOLABE_WORKERS ?? 2),
    timeoutMS: 20_000,
    tempDirName: join(tmpdir(), `geolabe-mutate-${process.pid}`),
    ignorePatterns: ['web', 'server', 'e2e', 'docs', 'test-results'],
    // What is set up once at the start would ask for every test; it is data, and tested as data.
    ignoreStatic: true,
    allowEmpty: true,
    disableTypeChecks: false,
    thresholds: { break: null },
  }),
)
const run = spawnSync(process.execPath, [join(root, 'node_modules/@stryker-mutator/core/bin/stryker.js'), 'run', config], {
  cwd: root,
  stdio: 'inherit',
})
if (run.status !== 0) process.exit(run.status ?? 1)
const mutants = Object.values(JSON.parse(readFileSync(report, 'utf8')).files).flatMap((f) => f.mutants)
const noticed = mutants.filter((m) => m.status === 'Killed' || m.status === 'Timeout').length
const judged = mutants.filter((m) => ['Killed', 'Timeout', 'Survived', 'NoCoverage'].includes(m.status)).length
rmSync(config)
rmSync(report)
console.log(
  `seed ${seed}: ${noticed} of ${judged} changes noticed, ${((noticed / judged) * 100).toFixed(1)} %, wanted ${least_share * 100} %`,
)
process.exit(noticed >= least_share * judged ? 0 : 1)
