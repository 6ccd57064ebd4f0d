import type { Tx } from '../db/database'

/** A defect that nobody raised by hand: it is found by what was recorded. */
async function raise(tx: Tx, machine: string, shift: string, where: string, words: string, grade: 'damage' | 'watch') {
  const said = words.slice(0, 2000)
  const d = await tx.query<{ id: string }>(
    'insert into defect (org, id, machine, shift, place_on_machine, words, grade, raised_grade, raised_by) values ($1, gen_random_uuid(), $2, $3, $4, $5, $6, $6, $7) returning id',
    [tx.who.org, machine, shift, where, said, grade, tx.who.person],
  )
  const stops = grade === 'damage'
  await tx.journal('defect-raised', d.rows[0]?.id ?? '', { machine, where, words: said, grade, stops })
}

/** Stops a machine with a tag, unless a defect stops it already, until somebody has looked at it and returned it to service. */
export async function stopMachine(tx: Tx, machine: string, shift: string, where: string, words: string): Promise<void> {
  const stops = await tx.query<{ stopped: boolean }>('select machine_stopped($1, $2) as stopped', [tx.who.org, machine])
  if (!stops.rows[0]?.stopped) await raise(tx, machine, shift, where, words, 'damage')
}

/** Something for the person in charge to look into: it stands among the machine's defects, to be watched, and stops nothing. */
export const tellInCharge = (tx: Tx, machine: string, shift: string, where: string, words: string): Promise<void> =>
  raise(tx, machine, shift, where, words, 'watch')
