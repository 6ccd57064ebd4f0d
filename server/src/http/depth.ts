import { Problem } from '../problem/problem'

/** No body of ours is nested deeper than a table in an assessment in a file. */
const deepest = 60

/**
 * Looks through a JSON body before it is parsed: brackets nested too deep are refused here, since everything that copies a parsed
 * body would have to follow them down.
 * @throws Problem 400 `too-deep`
 */
export function refuseDepth(_req: unknown, _res: unknown, bytes: Buffer): void {
  let depth = 0
  let inText = false
  for (let i = 0; i < bytes.length; i++) {
    const c = bytes[i]
    if (inText) {
      if (c === 0x5c) i++
      else if (c === 0x22) inText = false
    } else if (c === 0x22) inText = true
    else if (c === 0x5b || c === 0x7b) {
      if (++depth > deepest) throw new Problem(400, 'too-deep', `Nested more than ${deepest} deep; nothing here is.`)
    } else if (c === 0x5d || c === 0x7d) depth--
  }
}
