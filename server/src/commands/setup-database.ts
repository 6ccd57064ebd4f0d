import { migrate, type Owner } from '../db/migrate'
import { seed } from '../demo/seed'

/** Brings a database up to date and lays out the demo world where it is empty. Used by `npm run demo` and by the tests. */
const [database = 'geolabe', kind = 'demo'] = process.argv.slice(2)
const owner: Owner = {
  host: '127.0.0.1',
  port: Number(process.env.GEOLABE_PG_PORT),
  user: 'geolabe',
  password: process.env.GEOLABE_PG_PASSWORD ?? '',
}
await migrate(owner, database, {
  app: process.env.GEOLABE_APP_PASSWORD ?? '',
  door: process.env.GEOLABE_DOOR_PASSWORD ?? '',
})
const fresh = await seed(owner, database, kind === 'demo')
console.log(fresh ? 'The demo world has been laid out.' : 'The demo world stands as it was left.')
