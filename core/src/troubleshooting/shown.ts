import { z } from 'zod'
import { codeId } from '../quantity/name-id'
import type { SymptomPath } from './path'

/** A lamp or a code that the machine shows, and its answer. */
export const shown = z.strictObject({
  id: codeId,
  kind: z.enum(['lamp', 'code']),
  /** As it stands on the machine. */
  label: z.string().min(1),
  end: z.enum(['continue', 'call', 'stop']),
  /** What is done about it. */
  words: z.string().min(1),
})
export type Shown = z.infer<typeof shown>

/**
 * The way from what the machine shows to its answer. Whatever is not listed stops the machine: nobody guesses at a lamp.
 * @param all lamps and codes of one machine
 * @returns a path of one question; null where the machine lists nothing
 */
export function shownPath(all: readonly Shown[]): SymptomPath | null {
  if (all.length === 0) return null
  const unlisted = { id: 'unlisted', label: 'Another one, or it cannot be read' }
  return {
    id: 'shown',
    symptom: 'A lamp or a code is shown',
    nodes: [
      {
        id: 'which',
        ask: 'Which one?',
        answers: [...all, unlisted].map((s) => ({ label: s.label, to: `shown-${s.id}` })),
      },
      ...all.map((s) => ({ id: `shown-${s.id}`, end: s.end, words: s.words, cause: s.label, loses: [] })),
      {
        id: `shown-${unlisted.id}`,
        end: 'stop',
        words: 'Land it and stop. It stays stopped until the handbook or the fitter has said what it means.',
        loses: [],
      },
    ],
  }
}

/** Every way from a symptom that a machine has: those written for it, and the one through its own lamps and codes. */
export function symptomsOf(m: { symptoms: readonly SymptomPath[]; shows: readonly Shown[] }): SymptomPath[] {
  const own = shownPath(m.shows)
  return own ? [...m.symptoms, own] : [...m.symptoms]
}
