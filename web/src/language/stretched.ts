import { type MessageFormatElement, TYPE } from '@formatjs/icu-messageformat-parser'

const marked: Record<string, string> = { a: 'á', e: 'é', i: 'í', o: 'ó', u: 'ú', y: 'ý', A: 'Á', E: 'É', I: 'Í', O: 'Ó', U: 'Ú' }

/** Words with every vowel marked and each third of them twice: about a third longer, still readable. */
function stretch(words: string): string {
  let n = 0
  return words.replace(/[aeiouyAEIOU]/g, (c) => {
    n += 1
    const as = marked[c] ?? c
    return n % 2 === 0 ? `${as}${as.toLowerCase()}` : as
  })
}

function through(parts: readonly MessageFormatElement[]): MessageFormatElement[] {
  return parts.map((p) => {
    if (p.type === TYPE.literal) return { ...p, value: stretch(p.value) }
    if (p.type === TYPE.plural || p.type === TYPE.select)
      return {
        ...p,
        options: Object.fromEntries(Object.entries(p.options).map(([k, o]) => [k, { ...o, value: through(o.value) }])),
      } as MessageFormatElement
    return p
  })
}

const word = (value: string): MessageFormatElement => ({ type: TYPE.literal, value })

/** A sentence in the made-up language: in brackets, marked and longer, its figures as they are. */
export const stretched = (parts: MessageFormatElement[]): MessageFormatElement[] => [word('⟦'), ...through(parts), word('⟧')]
