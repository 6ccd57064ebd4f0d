/** Least letters between the figures by which a sentence is known again. */
const leastLetters = 4

interface Pattern {
  message: string
  like: RegExp
  order: number[]
  letters: number
}

const literal = (s: string) => s.replace(/[.*+?^${}()|[\]\\]/g, '\\$&')

/** Finds the sentence that words were made from: what the core says and the server answers comes with its figures in. */
export class Patterns {
  private readonly patterns: Pattern[]

  constructor(messages: readonly string[]) {
    this.patterns = messages
      .filter((m) => /\{\d+\}/.test(m) && !/\{\d+,/.test(m))
      .map((message) => {
        const words = message.split(/\{\d+\}/)
        const order = [...message.matchAll(/\{(\d+)\}/g)].map((m) => Number(m[1]))
        const letters = words.join('').replace(/\P{L}/gu, '').length
        return { message, order, letters, like: new RegExp(`^${words.map(literal).join('(.*?)')}$`, 'su') }
      })
      .filter((p) => p.letters >= leastLetters)
      .sort((a, b) => b.letters - a.letters)
  }

  /** The sentence and its values; of several that would fit the one with most words of its own. */
  read(english: string): { message: string; values: string[] } | null {
    for (const { message, like, order } of this.patterns) {
      const found = like.exec(english)
      if (!found) continue
      const values: string[] = []
      for (const [i, at] of order.entries()) values[at] = found[i + 1] ?? ''
      return { message, values }
    }
    return null
  }
}
