import type { Cue, EmergencyCard, Loss, ProcedureFile } from '@geolabe/core'
import { t, told } from '../language/t'

const emergencies: Record<EmergencyCard['id'], string> = {
  fire: t`Smoke, then a flame from the engine side.`,
  line: t`The boom has touched an overhead line; it crackles.`,
  trapped: t`A shout: somebody is caught, and cannot get out.`,
  load: t`The load comes down by itself, and no lever stops it.`,
  wind: t`A squall: the load swings out and does not come back.`,
  power: t`The engine dies with the load up, and does not start again.`,
  over: t`One side comes off the ground.`,
}

const losses: Record<Loss, string> = {
  sight: t`Whoever works with you has gone out of sight.`,
  impact: t`A knock goes through the machine.`,
  moved: t`The machine has moved, a hand’s breadth.`,
}
export const lossWords: Record<Loss, string> = {
  sight: t`Contact lost`,
  impact: t`It was knocked`,
  moved: t`It has moved`,
}

const unlisted = [
  t`A bang from underneath that you cannot place.`,
  t`A smell that you do not know.`,
  t`A word on the radio that you did not understand.`,
  t`Something lies there that belongs to no part you know.`,
]

/** What has come, as it is met with: nobody says what it is called. */
export function cueWords(cue: Cue, { stops }: ProcedureFile): string {
  switch (cue.kind) {
    case 'stop':
      return t`Nothing answers any more. Pressed in: ${told(stops.find((s) => s.id === cue.stop)?.label ?? '')}.`
    case 'lost':
      return losses[cue.why]
    case 'symptom':
      return `${told(cue.symptom)}.`
    case 'emergency':
      return emergencies[cue.card]
    case 'unlisted':
      return unlisted[cue.which] ?? unlisted[0] ?? ''
  }
}

/** What came, in a list. */
export const cueNames: Record<Cue['kind'], string> = {
  stop: t`A stop was pressed`,
  lost: t`Something was lost`,
  symptom: t`It did what it should not`,
  emergency: t`An emergency`,
  unlisted: t`Something nobody knew`,
}
