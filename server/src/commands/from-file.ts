import { readFileSync } from 'node:fs'
import { answer, isRefusal, Refusal } from '@geolabe/core'

/** What a file named on the command line holds. @throws Refusal where none is named, it cannot be read, or it is no JSON */
function contentOf(path: string | undefined): unknown {
  if (path === undefined) throw new Refusal('no-file', 'Name a file: one JSON object.', '')
  try {
    return JSON.parse(readFileSync(path, 'utf8'))
  } catch (e) {
    if (e instanceof SyntaxError) throw new Refusal('not-json', `${path} is not readable JSON.`, '')
    throw new Refusal('no-file', `${path} cannot be read.`, '')
  }
}

/** One file in, one answer on standard output; refused: on standard output too, and the exit status is 2. */
export function answerFile(work: (content: unknown) => object): void {
  const said = answer(() => work(contentOf(process.argv[2])))
  console.log(JSON.stringify(said, null, 1))
  process.exitCode = isRefusal(said) ? 2 : 0
}
