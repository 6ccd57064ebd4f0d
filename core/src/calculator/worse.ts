/**
 * Which way of a field is the worse, declared once a calculator. What is given with a ± is answered with true bounds, and what
 * decides (a word, a yes or no, a list of warnings) stands at its worse end everywhere in the answer.
 *
 * - `'high'`, `'low'`: a figure, worse the greater (the less) it is; `'either'`: the figure alone decides nothing.
 * - `{ worse, nothing }`: the same where there may be no figure: `best` stands beyond the better end (never tips, never reached),
 *   `worst` beyond the worse (would fall), `unknown` proves nothing and stands at both ends.
 * - `true`, `false`: of a yes or no, the worse.
 * - `{ words }`: from best to worst.
 * - `{ rows }`: a list whose rows belong together by this field; rows that only some answers have are kept.
 * - `{ arcs }`: stretches of an angle, joined where they meet, apart by this field if there is one.
 * - `{ unite: true }`: whole entries, each once; they are facts, not figures.
 * - `{ with }`: goes whole with the answer that has the least (low) or greatest (high) figure at that path; never mixed.
 * - `'given'`: repeats the input, names what no ± changes, or is told at the stated figures only.
 */
export type Worse =
  | 'high'
  | 'low'
  | 'either'
  | 'given'
  | boolean
  | { worse: 'high' | 'low' | 'either'; nothing: 'best' | 'worst' | 'unknown' }
  | { words: readonly unknown[] }
  | { rows: string }
  | { arcs: string | null }
  | { unite: true }
  | { with: string }

/** By path in the answer, dots between names and `*` for the entries of a list. */
export type WorseByField = Readonly<Record<string, Worse>>

/** Not rated or not known: neither a figure nor a limit of nothing. */
export const isNothing = (v: unknown): boolean => v === null || v === undefined || v === 'not-rated'
