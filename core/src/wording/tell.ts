/** What may stand in a sentence: a figure or a word; nothing at all where there is none. */
export type Shown = string | number | boolean | null | undefined

/** One sentence for one thing and another for several; `#` is how many, `{1}` and on are further values. */
export interface Plural {
  one: string
  other: string
}

/**
 * Somebody's language. Sentences are written in English where they are used, with their figures where they belong, and looked up
 * by that: `` t`${open} of ${all} confirmed` `` is looked up as `{0} of {1} confirmed`.
 */
export interface Language {
  t: (strings: TemplateStringsArray, ...values: Shown[]) => string
  plural: (n: number, forms: Plural, ...values: Shown[]) => string
  /** A sentence that was put together elsewhere, or stands in a list. */
  told: (english: string) => string
}

/** What stands for a value; nothing where nothing would be drawn either. */
export const shown = (value: Shown): string =>
  value === null || value === undefined || typeof value === 'boolean' ? '' : String(value)

/** A sentence as the catalogue has it (ICU): its values numbered from nought in the order they are written. */
export const messageOf = (strings: readonly string[]): string => strings.map((s, i) => (i === 0 ? s : `{${i - 1}}${s}`)).join('')

/** Several forms as the catalogue has them (ICU); other languages may have more of them. */
export const pluralMessage = ({ one, other }: Plural): string => `{0, plural, one {${one}} other {${other}}}`

const forms = new Intl.PluralRules('en')
const figures = new Intl.NumberFormat('en-GB')

/** As it is written. */
export const english: Language = {
  t: (strings, ...values) => strings.map((s, i) => (i === 0 ? s : `${shown(values[i - 1])}${s}`)).join(''),
  plural: (n, { one, other }, ...values) =>
    (forms.select(n) === 'one' ? one : other)
      .replace(/#/g, figures.format(n))
      .replace(/\{(\d+)\}/g, (_, k: string) => shown(values[Number(k) - 1])),
  told: (words) => words,
}
