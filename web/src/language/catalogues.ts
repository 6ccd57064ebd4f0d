import type { Catalogue } from './catalogue'

/** Catalogues there are, by language; each comes when it is asked for. A translator’s file goes in here. */
const known: Record<string, () => Promise<Catalogue>> = {
  // Made up, to see that every sentence is in the catalogue and that screens hold with longer ones.
  'en-XA': async () => {
    const [{ Catalogue }, sentences, { stretched }] = await Promise.all([
      import('./catalogue'),
      import('./en.json'),
      import('./stretched'),
    ])
    return new Catalogue('en-GB', sentences.default, stretched)
  },
}

export const hasCatalogue = (language: string): boolean => Object.hasOwn(known, language)
export const catalogueOf = async (language: string): Promise<Catalogue | null> => (await known[language]?.()) ?? null
