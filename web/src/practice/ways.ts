import type { Game } from '@geolabe/contract'
import { t } from '../language/t'

const ends: Record<Game, string> = { load: '', drive: '/driving', sequence: '/order', signal: '/signals', judge: '/judgement' }

/** Where a game is practised on a machine. */
export const wayTo = (machine: string, game: Game): string => `/practice/${machine}${ends[game]}`

/** Games as they are chosen. */
export const gameNames: Record<Game, string> = {
  load: t`Load control`,
  drive: t`Driving`,
  sequence: t`Order of work`,
  signal: t`Hand signals`,
  judge: t`Judgement`,
}
