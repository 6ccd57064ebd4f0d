import pg from 'pg'
import { verifyJournal } from '../journal/verify'

/** Follows every organisation's journal from first entry to last. Exit status 1 names the first entry that is not as it was written. */
const client = new pg.Client({
  host: '127.0.0.1',
  port: Number(process.env.GEOLABE_PG_PORT),
  user: 'geolabe',
  password: process.env.GEOLABE_PG_PASSWORD ?? '',
  database: process.argv[2] ?? 'geolabe',
  options: '-c search_path=geolabe',
})
await client.connect()
let broken = false
for (const { org, name } of (await client.query<{ org: string; name: string }>('select org, name from organisation order by org'))
  .rows) {
  await client.query("select set_config('app.org', $1, false)", [org])
  const check = await verifyJournal({ query: (text, values) => client.query(text, values) })
  broken ||= !check.intact
  console.log(
    check.intact ? `${name}: ${check.entries} entries, chain whole` : `${name}: entry ${check.brokenAt} is not as it was written`,
  )
}
await client.end()
process.exit(broken ? 1 : 0)
