import { text } from 'node:stream/consumers'
import { calculatorNamed, calculators, isRefusal } from '@geolabe/core'

/** `npm run -s calc -- NAME < in.json`: one object in, one out; --lines: JSON Lines, one answer a line. No server, no database. */
const args = process.argv.slice(2)
const lines = args.includes('--lines')
const name = args.find((a) => !a.startsWith('--'))

function refuse(code: string, message: string): never {
  console.log(JSON.stringify({ error: { code, message, path: '' } }))
  process.exit(2)
}

const calculator = name ? calculatorNamed(name) : undefined
if (!calculator) refuse('unknown-calculator', `Name one of: ${calculators.map((c) => c.name).join(', ')}.`)

const run = (source: string) => {
  try {
    return calculator.run(JSON.parse(source))
  } catch (e) {
    if (e instanceof SyntaxError) return { error: { code: 'not-json', message: 'This is not readable JSON.', path: '' } }
    throw e
  }
}

const input = await text(process.stdin)
if (lines) {
  for (const line of input.split('\n')) if (line.trim() !== '') console.log(JSON.stringify(run(line)))
} else {
  const answer = run(input)
  console.log(JSON.stringify(answer))
  process.exitCode = isRefusal(answer) ? 2 : 0
}
