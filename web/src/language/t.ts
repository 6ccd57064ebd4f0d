import { english, type Language, messageOf, pluralMessage } from '@geolabe/core'
import type { Catalogue } from './catalogue'

let catalogue: Catalogue | null = null

/** Takes another language's sentences, before any screen is loaded; none for English as it is written. */
export const speak = (other: Catalogue | null): void => {
  catalogue = other
}

/** The catalogue in use; null where sentences stay as they are written. */
export const inUse = (): Catalogue | null => catalogue

/** The language that this page speaks. */
export const language: Language = {
  t: (strings, ...values) => (catalogue ? catalogue.words(messageOf(strings), values) : english.t(strings, ...values)),
  plural: (n, forms, ...values) =>
    catalogue ? catalogue.words(pluralMessage(forms), [n, ...values]) : english.plural(n, forms, ...values),
  told: (words) => (catalogue ? catalogue.told(words) : words),
}

/** `t` for a sentence, `plural` for one that counts, `told` for one that comes from the core or the server. */
export const { t, plural, told } = language
