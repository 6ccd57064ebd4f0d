import { z } from 'zod'
import type { Machine } from '../machine/machine'
import { Refusal } from '../refusal'

const mostSeed = 2 ** 32 - 1

/** What every run says before what was done in it: what it is, on which machine, drawn from which seed, how hard. */
export const runHead = {
  format: z.literal('geolabe.practice/1'),
  id: z.uuid(),
  version: z.int().min(1),
  machine: z.strictObject({ id: z.string().min(1).max(80), revision: z.int().min(1) }),
  seed: z.int().min(0).max(mostSeed, 'A seed is a whole number below 4,294,967,296.'),
  level: z.number().min(0).max(1),
}

/** What every run says, of a machine and what it was drawn from; its game, that game’s version and what was done are its own. */
export const headOf = (
  { id, revision }: Pick<Machine, 'id' | 'revision'>,
  { seed, level }: { seed: number; level: number },
  run: string,
) => ({ format: 'geolabe.practice/1' as const, id: run, machine: { id, revision }, seed, level })

/** @throws Refusal `version-unknown`, `machine-changed` where a run cannot be worked out again */
export function checkHead(
  m: Pick<Machine, 'id' | 'revision' | 'name'>,
  run: { version: number; machine: { id: string; revision: number } },
  version: number,
): void {
  if (run.version !== version)
    throw new Refusal(
      'version-unknown',
      'This run was made with another version of practice; it cannot be scored here.',
      'version',
    )
  if (run.machine.id !== m.id || run.machine.revision !== m.revision)
    throw new Refusal(
      'machine-changed',
      `${m.name} has changed since this run; it counts for the machine as it was.`,
      'machine.revision',
    )
}
