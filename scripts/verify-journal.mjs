// `npm run verify-journal`: follows the demo's journal from its first entry to its last.
import { dataFolder, ensureCluster, runCommand } from './environment.mjs'

const port = Number(process.env.GEOLABE_PG_PORT ?? 54800)
const cluster = await ensureCluster(dataFolder('demo'), port)
process.exit(runCommand('verify-journal', ['geolabe'], cluster.environment).status ?? 1)
