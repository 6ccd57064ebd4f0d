export type Random = () => number

/** The same things in another order. */
export const shuffled = <T>(random: Random, of: readonly T[]): T[] =>
  of
    .map((one) => ({ one, lot: random() }))
    .sort((a, b) => a.lot - b.lot)
    .map(({ one }) => one)

/** A figure between two. */
export const spread = (random: Random, least: number, most: number): number => least + (most - least) * random()
