/**
 * Writes docs/calculators.md, and the JSON Schemas that the build publishes, from the calculators and formats themselves:
 * `npm run reference`. A test holds the page to what the calculators answer today.
 */
import { mkdirSync, writeFileSync } from 'node:fs'
import { fileFormats, jsonSchemaOf } from '@geolabe/contract'
import { calculatorGroups, calculators } from '@geolabe/core'
import { z } from 'zod'

/** Long lists in a worked example are cut for the page; the calculator’s own example is whole. */
function short(value: unknown): unknown {
  if (typeof value === 'number') return Number(value.toPrecision(7))
  if (Array.isArray(value))
    return value.length > 6 ? [...value.slice(0, 3).map(short), `… ${value.length} in all`] : value.map(short)
  if (typeof value === 'object' && value !== null) return Object.fromEntries(Object.entries(value).map(([k, v]) => [k, short(v)]))
  return value
}
const json = (v: unknown) =>
  JSON.stringify(short(v), null, 1).replace(
    /\[\s+([^[\]{}]*?)\s+\]/g,
    (_, inner: string) => `[${inner.replace(/\s*\n\s*/g, ' ')}]`,
  )

/** The page of worked examples, as Markdown. */
export function calculatorsPage(): string {
  const head = `# Calculators

Written by \`npm run reference\` from the calculators themselves; the tests hold it to what they answer. Each answers in four
ways with the same figures: on its page, as \`POST /api/calc/NAME\`, as \`npm run -s calc -- NAME < in.json\`, and in
the browser's workers. Formulas and conventions: [engineering.md](engineering.md). Schemas: \`GET /api/calc\`, and
\`/schemas/NAME.input.json\` and \`/schemas/NAME.output.json\` in the build.
`
  const parts = calculatorGroups.map((g) => {
    const each = g.calculators.map((c) => {
      const fields = Object.keys(
        (z.toJSONSchema(c.input, { io: 'input', unrepresentable: 'any' }) as { properties?: object }).properties ?? {},
      )
      return `### ${c.name}

${c.purpose} *${c.source}*

Fields: ${fields.map((f) => `\`${f}\``).join(', ')}.

${c.cautions.map((w) => `- ${w}`).join('\n')}

In:

\`\`\`json
${json(c.example)}
\`\`\`

Out:

\`\`\`json
${json(c.run(c.example))}
\`\`\`
`
    })
    return `## ${g.label}\n\n${each.join('\n')}`
  })
  return `${head}\n${parts.join('\n')}`
}

/** Every published schema by the name of its file. */
export function publishedSchemas(): Map<string, object> {
  const of = (s: z.ZodType, io: 'input' | 'output') => z.toJSONSchema(s, { io, unrepresentable: 'any' })
  return new Map<string, object>([
    ...(Object.keys(fileFormats) as (keyof typeof fileFormats)[]).map((f) => [`${f}.json`, jsonSchemaOf(f)] as const),
    ...calculators.flatMap((c) => [
      [`${c.name}.input.json`, { title: `${c.name}, input`, ...of(c.input, 'input') }] as const,
      [`${c.name}.output.json`, { title: `${c.name}, answer`, ...of(c.output, 'output') }] as const,
    ]),
  ])
}

if (process.argv.includes('--schemas')) {
  const folder = new URL('../web/dist/schemas/', import.meta.url)
  mkdirSync(folder, { recursive: true })
  for (const [name, schema] of publishedSchemas()) writeFileSync(new URL(name, folder), `${JSON.stringify(schema, null, 1)}\n`)
} else if (process.argv[1]?.endsWith('reference.ts')) {
  writeFileSync(new URL('../docs/calculators.md', import.meta.url), calculatorsPage())
}
