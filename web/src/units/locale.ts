import type { Locale } from 'date-fns'
import { enGB } from 'date-fns/locale/en-GB'

/** How dates are written, by language; each comes when it is asked for, British English with the page. */
const known: Record<string, () => Promise<Locale>> = {
  'en-US': async () => (await import('date-fns/locale/en-US')).enUS,
  'en-AU': async () => (await import('date-fns/locale/en-AU')).enAU,
  'en-CA': async () => (await import('date-fns/locale/en-CA')).enCA,
  da: async () => (await import('date-fns/locale/da')).da,
  de: async () => (await import('date-fns/locale/de')).de,
  es: async () => (await import('date-fns/locale/es')).es,
  fi: async () => (await import('date-fns/locale/fi')).fi,
  fr: async () => (await import('date-fns/locale/fr')).fr,
  it: async () => (await import('date-fns/locale/it')).it,
  nb: async () => (await import('date-fns/locale/nb')).nb,
  nl: async () => (await import('date-fns/locale/nl')).nl,
  pl: async () => (await import('date-fns/locale/pl')).pl,
  pt: async () => (await import('date-fns/locale/pt')).pt,
  sv: async () => (await import('date-fns/locale/sv')).sv,
}

/** What can be chosen, each under its own name. */
export const languages = ['en-GB', ...Object.keys(known)].map((tag) => ({
  value: tag,
  label: new Intl.DisplayNames([tag], { type: 'language' }).of(tag) ?? tag,
}))

let locale: Locale = enGB

/** The way of writing dates that counts now. */
export const dateLocale = (): Locale => locale

/** Takes the locale of a language, or of the language without its country; what is not known stays British English. */
export async function loadLocale(language: string): Promise<void> {
  const load = known[language] ?? known[language.split('-')[0] ?? '']
  locale = load ? await load() : enGB
}
