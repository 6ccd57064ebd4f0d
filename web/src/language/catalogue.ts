import { type MessageFormatElement, parse } from '@formatjs/icu-messageformat-parser'
import { type Shown, shown } from '@geolabe/core'
import { IntlMessageFormat } from 'intl-messageformat'
import type { ReactNode } from 'react'
import { Patterns } from './patterns'

/** Sentences of one language, by how they are written in English (ICU). */
export type Sentences = Readonly<Record<string, string>>

/** One language's sentences with their figures in. What it lacks stays English. */
export class Catalogue {
  private readonly ready = new Map<string, IntlMessageFormat>()
  private readonly patterns: Patterns

  constructor(
    private readonly locale: string,
    private readonly sentences: Sentences,
    private readonly as: (parts: MessageFormatElement[]) => MessageFormatElement[] = (parts) => parts,
  ) {
    this.patterns = new Patterns(Object.keys(sentences))
  }

  private format(message: string): IntlMessageFormat {
    const had = this.ready.get(message)
    if (had) return had
    const own = this.sentences[message]
    const parts = parse(own ?? message, { ignoreTag: true })
    const made = new IntlMessageFormat(own === undefined ? parts : this.as(parts), this.locale)
    this.ready.set(message, made)
    return made
  }

  /** @param message as it is written, its values numbered: `{0} of {1} confirmed` */
  words(message: string, values: readonly Shown[]): string {
    const given = Object.fromEntries(values.map((v, i) => [i, typeof v === 'number' && i === 0 ? v : shown(v)]))
    return String(this.format(message).format(given))
  }

  /** The same with parts that are drawn, each where this language has it. */
  parts(message: string, nodes: readonly ReactNode[]): ReactNode[] {
    const made = this.format(message).formatToParts<ReactNode>(Object.fromEntries(nodes.map((n, i) => [i, n])))
    return made.map((p) => p.value as ReactNode)
  }

  /** A sentence whose figures are in already: looked up by the words between them. */
  told(english: string): string {
    if (Object.hasOwn(this.sentences, english)) return this.words(english, [])
    const read = this.patterns.read(english)
    return read
      ? this.words(
          read.message,
          read.values.map((v) => this.told(v)),
        )
      : english
  }
}
