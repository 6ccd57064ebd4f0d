import { z } from 'zod'

const flag = z
  .enum(['0', '1'], { error: 'Write 1 for yes or 0 for no.' })
  .default('0')
  .transform((v) => v === '1')
const list = z
  .string()
  .default('')
  .transform((v) =>
    v
      .split(',')
      .map((x) => x.trim())
      .filter(Boolean),
  )

/** Everything that a server process is told from outside, by the name of its environment variable. */
const settings = z.object({
  GEOLABE_DATABASE_URL: z.url({ protocol: /^postgres(ql)?$/, error: 'Give the address of the database: postgres://…' }),
  /** The same database by the role that looks up who signs on. */
  GEOLABE_DOOR_URL: z.url({ protocol: /^postgres(ql)?$/, error: 'Give the address of the database: postgres://…' }),
  /** Where the key is kept that exports are signed with; made at the first start. */
  GEOLABE_KEY_FILE: z.string().min(1, 'Give the path of a file.'),
  GEOLABE_PORT: z.coerce.number({ error: 'Give a port number.' }).int('Give a port number.').min(1).max(65_535),
  GEOLABE_DEMO: flag,
  /** Behind TLS: cookies only over it, by their strict names. */
  GEOLABE_SECURE: flag,
  /** Addresses of proxies whose word about who asks is taken; none: the connection's own address. */
  GEOLABE_TRUST_PROXY: list,
  /** Names under which this server is asked; none: this machine's own only. */
  GEOLABE_HOSTS: list,
  /** A session that nobody used for so long ends, hours. */
  GEOLABE_IDLE_HOURS: z.coerce
    .number({ error: 'Give hours.' })
    .positive('More than nothing.')
    .max(24, 'At most a day.')
    .default(6),
})

export interface Settings {
  databaseUrl: string
  doorUrl: string
  keyFile: string
  port: number
  demo: boolean
  secure: boolean
  trustProxy: string[]
  hosts: string[]
  idleHours: number
}

/** @throws Error that names the setting that is wrong and what it should be. */
export function readSettings(environment: Record<string, string | undefined>): Settings {
  const read = settings.safeParse(environment)
  if (!read.success) {
    const issue = read.error.issues[0]
    const name = String(issue?.path[0] ?? '')
    const missing = environment[name] === undefined
    throw new Error(`${name} is ${missing ? 'not set' : 'wrong'}. ${issue?.message} “npm run demo” sets everything.`)
  }
  const s = read.data
  return {
    databaseUrl: s.GEOLABE_DATABASE_URL,
    doorUrl: s.GEOLABE_DOOR_URL,
    keyFile: s.GEOLABE_KEY_FILE,
    port: s.GEOLABE_PORT,
    demo: s.GEOLABE_DEMO,
    secure: s.GEOLABE_SECURE,
    trustProxy: s.GEOLABE_TRUST_PROXY,
    hosts: s.GEOLABE_HOSTS,
    idleHours: s.GEOLABE_IDLE_HOURS,
  }
}
