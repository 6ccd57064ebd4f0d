import type { CertificateLine, Exam, ExamTry } from '@geolabe/contract'
import type { LoadSet } from '@geolabe/core'
import { t } from '../language/t'
import type { useSay } from '../units/units'
import { clockOf } from './clock'
import { wayTo } from './ways'

/** What is examined, on which machine. */
export const examWords = ({ game, machine: { name } }: Pick<Exam, 'game' | 'machine'>): string =>
  ({
    load: t`load control on ${name}`,
    drive: t`driving ${name}`,
    sequence: t`order of work of ${name}`,
    signal: t`hand signals on ${name}`,
    judge: t`judgement on ${name}`,
  })[game]

/** What an assessor has set of load control, one thing after another. */
export function setWords({ across, along, wind, clock }: LoadSet, say: ReturnType<typeof useSay>): string[] {
  return [
    across && t`a swing of ${across.amplitude_deg}° across the boom`,
    along && t`a swing of ${along.amplitude_deg}° along the boom`,
    wind && t`wind ${say('speed', wind.mean_mps)}, in gusts ${say('speed', wind.mean_mps + wind.gust_mps)}`,
    clock === 'hidden' && t`no clock`,
    typeof clock === 'number' && t`a clock that runs down from ${clockOf(clock)}`,
  ].filter((x) => typeof x === 'string')
}

/** Where an exam is sat. */
export const wayToSit = ({ id, game, machine }: Pick<Exam, 'id' | 'game' | 'machine'>) => `${wayTo(machine.id, game)}?exam=${id}`

/** Its last day counts as well, by the day of the yard's records. */
export const isPast = ({ until }: Pick<Exam, 'until'>) => until < new Date().toISOString().slice(0, 10)

export const triesLeft = (e: Pick<Exam, 'made' | 'tries' | 'until' | 'machineChanged' | 'certificate'>): number =>
  isPast(e) || e.machineChanged || e.certificate !== null ? 0 : Math.max(0, e.tries - e.made.length)

/** What an exam has come to. */
export function standing(e: Exam): string {
  if (e.certificate !== null) return t`certificate issued`
  if (e.made.some((m) => m.result?.passed)) return t`passed`
  if (e.machineChanged) return t`over: the machine has changed`
  if (triesLeft(e) > 0) return e.made.length === 0 ? t`not begun` : t`under way`
  return isPast(e) ? t`over: its day has passed` : t`over: not passed`
}

/** From when a try began until its run was there, by the clock of the records; null: not kept. */
export const elapsed_s = ({ begunAt, keptAt }: ExamTry): number | null =>
  keptAt === null ? null : (Date.parse(keptAt) - Date.parse(begunAt)) / 1000

export const certificateWords: Record<CertificateLine['state'], string> = {
  'in-date': t`in date`,
  expired: t`out of date`,
  'earlier-machine': t`for an earlier machine: its levers, figures or tables have changed since`,
}
