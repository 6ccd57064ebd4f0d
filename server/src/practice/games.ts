import type { Game, PracticeGames } from '@geolabe/contract'
import { canDrive, canPractise, canSignal, type Machine, misreadingsOf, type RatingTable } from '@geolabe/core'

/** What can be practised on a machine, from its own data. */
export const offeredOn = (m: Machine, tables: readonly RatingTable[]): PracticeGames['machines'][number] => ({
  machine: m.id,
  load: canPractise(m),
  signal: canSignal(m),
  drive: canDrive(m),
  judge: misreadingsOf(tables),
})

export function gamesOn(m: Machine, tables: readonly RatingTable[]): Game[] {
  const of = offeredOn(m, tables)
  return (['load', 'drive', 'signal', 'judge'] as const).filter((g) => (g === 'judge' ? of.judge.length > 0 : of[g]))
}

/** Done with the machine's own levers, and moving it or its load. */
export const isByLevers = (game: Game): boolean => game === 'load' || game === 'drive'
