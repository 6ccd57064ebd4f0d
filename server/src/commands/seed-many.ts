// Lays a long past into the demo world: `npm run seed-many`, or with figures of one's own: entries inspections defects.
import pg from 'pg'
import { layOutMany } from '../demo/many'

const url = process.env.GEOLABE_OWNER_URL
if (!url) throw new Error('GEOLABE_OWNER_URL says which database.')
const [entries = 100_000, inspections = 5000, defects = 2000] = process.argv.slice(2).map(Number)
const client = new pg.Client({ connectionString: url, options: '-c search_path=geolabe' })
await client.connect()
const began = Date.now()
await layOutMany(client, 'skarrow-haven', { entries, inspections, defects })
const count = await client.query<{ entries: string; inspections: string; defects: string }>(
  'select (select count(*) from journal) as entries, (select count(*) from inspection) as inspections, (select count(*) from defect) as defects',
)
console.log(`Laid out in ${((Date.now() - began) / 1000).toFixed(0)} s. In the records now:`, count.rows[0])
await client.end()
