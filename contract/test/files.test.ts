import { readdirSync, readFileSync } from 'node:fs'
import { calculators } from '@geolabe/core'
import { describe, expect, it } from 'vitest'
import { calculatorsPage, publishedSchemas } from '../../scripts/reference'
import { readMachineFile } from '../../server/src/demo/files'
import { fileFormats, jsonSchemaOf, organisationFile } from '../src'

const demo = new URL('../../demo/', import.meta.url)
const read = (path: string) => JSON.parse(readFileSync(new URL(path, demo), 'utf8'))
const folders = {
  models: 'model',
  tables: 'table',
  places: 'place',
  people: 'organisation',
  walkrounds: 'walkround',
  pieces: 'pieces',
  history: 'history',
  procedures: 'procedure',
} as const
const whole = readMachineFile

describe('the page of calculators', () => {
  it('says what they answer today; `npm run reference` writes it', () => {
    expect(readFileSync(new URL('../../docs/calculators.md', import.meta.url), 'utf8')).toBe(calculatorsPage())
  })
  it('goes with a schema of each format, input and answer', () => {
    const schemas = publishedSchemas()
    for (const c of calculators) {
      expect(schemas.has(`${c.name}.input.json`) && schemas.has(`${c.name}.output.json`)).toBe(true)
    }
    for (const f of Object.keys(fileFormats)) expect(schemas.has(`${f}.json`)).toBe(true)
  })
})

describe('open formats', () => {
  for (const [folder, format] of Object.entries(folders) as [keyof typeof folders, (typeof folders)[keyof typeof folders]][]) {
    for (const file of readdirSync(new URL(`${folder}/`, demo))) {
      it(`${folder}/${file} is a valid ${format}, and comes back unchanged`, () => {
        const raw = read(`${folder}/${file}`)
        const own = raw.format === 'geolabe.procedure-pieces/1' ? 'procedure-pieces' : format
        expect(fileFormats[own].parse(raw)).toMatchObject(raw)
      })
    }
  }
  for (const file of readdirSync(new URL('machines/', demo))) {
    it(`machines/${file} is whole with what it leaves to others, and as a whole is a valid machine that comes back unchanged`, () => {
      const m = whole(file.replace('.json', ''))
      expect(fileFormats.machine.parse(m)).toEqual(m)
    })
  }

  it('publishes a closed JSON Schema for each', () => {
    for (const name of Object.keys(fileFormats) as (keyof typeof fileFormats)[]) {
      const { anyOf, oneOf, ...plain } = jsonSchemaOf(name) as { anyOf?: object[]; oneOf?: object[] }
      for (const s of anyOf ?? oneOf ?? [plain]) expect(s).toMatchObject({ type: 'object', additionalProperties: false })
    }
  })

  it('names row and column of what is wrong in a table', () => {
    const table = read('tables/tern-main.json')
    table.configurations[0].rows[3].ratings_kg.pop()
    const wrong = fileFormats.table.safeParse(table)
    expect(wrong.error?.issues[0]).toMatchObject({ path: ['configurations', 0, 'rows', 3, 'ratings_kg'] })
    expect(wrong.error?.issues[0]?.message).toMatch(/Row 4 has 4 ratings for 5/)
  })

  it('refuses a machine with two walk-round items of one id, a step that rests on none, and an unknown field', () => {
    const tern = whole('tern')
    const twice = structuredClone(tern)
    const [first, second] = twice.walkround.zones[0]?.items ?? []
    if (first && second) second.id = first.id
    expect(fileFormats.machine.safeParse(twice).error?.issues[0]?.message).toMatch(/Two items/)
    const early = structuredClone(tern)
    const step = early.procedures.procedures[0]?.steps[0]
    if (step) step.needs = [{ id: 'x', if: { done: 'no-such-step' }, because: 'x' }]
    expect(fileFormats.machine.safeParse(early).error?.issues[0]?.message).toMatch(/no step/)
    expect(fileFormats.machine.safeParse({ ...tern, colour: 'red' }).success).toBe(false)
  })

  it('knows only machines, places and tables that are there', () => {
    for (const file of readdirSync(new URL('people/', demo))) {
      const org = organisationFile.parse(read(`people/${file}`))
      for (const m of org.machines) expect(read(`machines/${m}.json`).id).toBe(m)
      for (const p of org.places) expect(read(`places/${p}.json`).id).toBe(p)
      for (const m of org.models) expect(read(`models/${m}.json`).id).toBe(m)
      for (const t of org.tables) expect([...org.machines, ...org.models]).toContain(read(`tables/${t}.json`).machine)
    }
  })
})
