import { NumberParser } from '@internationalized/number'

/** A figure as somebody wrote it. */
export interface ReadFigure {
  /** Null: nothing was written, or it cannot be read. */
  value: number | null
  /**
   * The two figures it could be, where a single separator stands before exactly three digits: by the locale, and the other way.
   * Whoever wrote it is asked; a file is refused.
   */
  either: [number, number] | null
}

const nothing: ReadFigure = { value: null, either: null }

/** Spaces that writers group digits with, apostrophes too. */
const spaces = /[\s\u00A0\u202F\u2009'’]/g

interface Separators {
  group: string
  decimal: string
}

const made = new Map<string, Intl.NumberFormat>()

/** A format of figures, made once for each locale and set of options: making one takes longer than using it a hundred times. */
export function figureFormat(locale: string, options: Intl.NumberFormatOptions): Intl.NumberFormat {
  const key = `${locale} ${JSON.stringify(options)}`
  const format = made.get(key) ?? new Intl.NumberFormat(locale, options)
  made.set(key, format)
  return format
}

const separators = new Map<string, Separators>()

function separatorsOf(locale: string): Separators {
  const known = separators.get(locale) ?? readSeparators(locale)
  separators.set(locale, known)
  return known
}

function readSeparators(locale: string): Separators {
  const parts = figureFormat(locale, { useGrouping: true }).formatToParts(-1234567.8)
  const of = (type: string, usual: string) => parts.find((p) => p.type === type)?.value ?? usual
  return { group: westernSigns(of('group', ',')).replace(spaces, ''), decimal: westernSigns(of('decimal', '.')) }
}

/** Arabic decimal and thousands signs as the ones on a western keyboard. */
const westernSigns = (text: string) => text.replaceAll('\u066B', '.').replaceAll('\u066C', ',')

/** Digits of whatever script the locale writes as ASCII; signs and separators stay. */
function plainDigits(text: string, locale: string): string {
  if (!/[^\P{Nd}0-9]/u.test(text)) return text
  const parser = new NumberParser(locale, { style: 'decimal' })
  return [...text].map((c) => (/\p{Nd}/u.test(c) ? String(parser.parse(c)) : c)).join('')
}

/** Is the integer part grouped as the locale groups it, each group in its place? */
function isGrouped(integer: string, locale: string): boolean {
  const digits = integer.replace(/[^\d]/g, '')
  const shown = figureFormat(locale, {
    useGrouping: 'always',
    maximumFractionDigits: 0,
    numberingSystem: 'latn',
  }).format(BigInt(digits === '' ? '0' : digits))
  return westernSigns(shown.replace(spaces, '')) === integer
}

/**
 * Reads a figure as a locale writes it, the same for screens and files: `12,500` is twelve thousand five hundred where a comma
 * groups and twelve and a half where it is the decimal sign. A separator that cannot be the locale's own is taken for the other
 * kind. Exponents, infinities and groups in the wrong place are no figures.
 *
 * @example readFigure('12,5', 'en-GB') // { value: 12.5, either: null }
 * @example readFigure('12,500', 'en-GB') // { value: 12500, either: [12500, 12.5] }
 */
export function readFigure(text: string, locale: string): ReadFigure {
  const key = `${locale} ${text}`
  const known = read.get(key)
  if (known) return known
  // The fields of a screen ask for the same few at every move of a finger.
  if (read.size >= mostRead) read.clear()
  const found = readAnew(text, locale)
  read.set(key, found)
  return found
}
const read = new Map<string, ReadFigure>()
const mostRead = 200

function readAnew(text: string, locale: string): ReadFigure {
  const { group, decimal } = separatorsOf(locale)
  let plain = plainDigits(text.trim(), locale)
    .replace(/^[\u2212\u2013]/, '-')
    .replace(/\u200E|\u200F|\u061C/g, '')
  plain = westernSigns(plain.replace(spaces, ''))
  const sign = /^[-+]/.test(plain) ? (plain[0] as string) : ''
  const bare = plain.slice(sign.length)
  if (!/^[\d.,]*\d[\d.,]*$/.test(bare)) return nothing
  const by = (g: string, d: string): number | null => {
    const [integer = '', fraction, ...rest] = d === '' ? [bare] : bare.split(d)
    if (rest.length > 0 || (fraction !== undefined && !/^\d*$/.test(fraction))) return null
    const grouped = g !== '' && integer.includes(g)
    if (/[^\d.,]/.test(integer) || (!grouped && /[.,]/.test(integer))) return null
    if (grouped && !isGrouped(integer, g === group ? locale : g === ',' ? 'en' : 'de')) return null
    const digits = g === '' ? integer : integer.replaceAll(g, '')
    if (!/^\d*$/.test(digits) || (digits === '' && !fraction)) return null
    const v = Number(`${sign}${digits === '' ? '0' : digits}.${fraction || '0'}`)
    return Number.isFinite(v) ? v : null
  }
  const own = by(group, decimal)
  const other = by(decimal, decimal === '.' ? ',' : '.')
  const twofold = /^([1-9]\d{0,2})([.,])(\d{3})$/.exec(bare)
  if (!twofold) return { value: own ?? other, either: null }
  const [, whole, sign_, rest] = twofold
  const grouped = Number(`${sign}${whole}${rest}`)
  const broken = Number(`${sign}${whole}.${rest}`)
  const either: [number, number] = sign_ === group ? [grouped, broken] : [broken, grouped]
  return { value: either[0], either }
}

/**
 * A figure in a file: plain digits with a point or a comma for the decimal. `14,000` could be fourteen or fourteen thousand and is
 * refused; so is what is no figure.
 *
 * @throws RangeError with words to put after the line and the column
 */
export function fileFigure(text: string): number {
  const plain = text.trim()
  if (/^[-+]?\d+(\.\d+)?$/.test(plain)) return Number(plain)
  const { value, either } = readFigure(plain, 'en')
  if (either)
    throw new RangeError(
      `“${plain}” could be ${either[0]} or ${either[1]}; write it without a comma, or with a point for decimals.`,
    )
  if (value === null) throw new RangeError(`“${plain}” is no figure.`)
  return value
}

/** A figure as it is edited: in the locale's own signs, without groups, and never in a form that would have to be asked about. */
export function editFigure(value: number, locale: string, digits: number): string {
  const shown = figureFormat(locale, {
    useGrouping: false,
    maximumFractionDigits: digits,
    numberingSystem: 'latn',
  }).format(value)
  return readFigure(shown, locale).either ? `${shown}0` : shown
}

/** What to ask about a figure that can be read two ways; null: nothing. */
export function askWhich(read: ReadFigure): string | null {
  return read.either
    ? `Is this ${read.either[0]} or ${read.either[1]}? Write it without a separator, or with fewer or more decimals.`
    : null
}
