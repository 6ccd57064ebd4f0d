import { catalogueOf, hasCatalogue } from '../language/catalogues'
import { inUse, speak } from '../language/t'
import { loadLocale } from './locale'
import { writeFiguresAs } from './units'

const key = 'geolabe.language'

/** The person's own choice, else what the device says. */
export function chosenLanguage(): string {
  try {
    return localStorage.getItem(key) ?? navigator.language
  } catch {
    return navigator.language
  }
}

/** Dates and figures as a language has them. What it lacks on this device stays as it was. */
async function writeAs(language: string): Promise<void> {
  await loadLocale(language)
  writeFiguresAs(language)
}

/** Dates, figures and sentences as chosen. To be called before any screen is loaded. */
export async function speakAsChosen(): Promise<void> {
  const language = chosenLanguage()
  await writeAs(language)
  const catalogue = await catalogueOf(language)
  speak(catalogue)
  if (catalogue) document.documentElement.lang = language
}

/** Takes another language. Sentences are said as screens are loaded, so where these change the page is loaded anew. */
export async function chooseLanguage(language: string): Promise<void> {
  try {
    localStorage.setItem(key, language)
  } catch {
    // Not kept for next time; still used now.
  }
  if (inUse() !== null || hasCatalogue(language)) globalThis.location.reload()
  else await writeAs(language)
}
