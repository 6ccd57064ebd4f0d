import type { Game, PracticeProgress, SkillLine } from '@geolabe/contract'
import { lastAttempts } from '@geolabe/core'
import type { Tx } from '../db/database'

type Row = Omit<SkillLine, 'values'> & { value: number }

/** Of each machine and game the last thirty runs; of each plane the last thirty catches. */
const select = `
  with runs as (
    select r.machine, m.document->>'name' as name, r.game, r.score, r.result, r.at, r.id,
      row_number() over (partition by r.machine, r.game order by r.at desc, r.id desc) as back
    from practice_run r join machine m on m.org = r.org and m.id = r.machine
  ), last as (select * from runs where back <= ${lastAttempts})
  select machine, name as "machineName", game, 'score' as measure, null as plane, null::boolean as inward, score as value, at, id, 0 as k from last
  union all
  select machine, name, game, 'answer_s', null, null, (result->>'median_s')::float8, at, id, 0 from last
    where game = 'signal' and result->>'way' = 'answered' and result->>'median_s' is not null
  union all
  select machine, name, game, 'off_s', a.try->>'plane', (a.try->>'inward')::boolean, abs((a.try->>'late_s')::float8), at, id, a.k::int
    from last cross join lateral jsonb_array_elements(coalesce(result->'attempts', '[]')) with ordinality as a(try, k)
    where game = 'load'
  order by 1, 3, 4 desc, 5, 6 desc, at, id, k`

/** How one's own skills go, one line each. */
export async function readProgress(tx: Tx): Promise<PracticeProgress> {
  const { rows } = await tx.query<Row & { game: Game }>(select)
  const lines = new Map<string, SkillLine>()
  for (const { machine, machineName, game, measure, plane, inward, value } of rows) {
    const key = `${machine} ${game} ${measure} ${plane} ${inward}`
    const line = lines.get(key) ?? { machine, machineName, game, measure, plane, inward, values: [] }
    line.values.push(value)
    lines.set(key, line)
  }
  return { skills: [...lines.values()].map((l) => ({ ...l, values: l.values.slice(-lastAttempts) })) }
}
