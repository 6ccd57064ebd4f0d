import type { PracticeGames } from '@geolabe/contract'
import { canDrive, canSequence, canSignal, type Machine, mistakesOn, planesOn, type RatingTable } from '@geolabe/core'

/** What can be practised on a machine, from its own data. */
export const offeredOn = (m: Machine, tables: readonly RatingTable[]): PracticeGames['machines'][number] => ({
  machine: m.id,
  load: planesOn(m),
  signal: canSignal(m),
  drive: canDrive(m),
  sequence: canSequence(m),
  judge: mistakesOn({ machine: m, tables }),
})
