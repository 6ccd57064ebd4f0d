import { randomBytes } from 'node:crypto'
import { existsSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import type { DemoPeople } from '@geolabe/contract'
import compression from 'compression'
import express, { type NextFunction, type Request, type Response, Router } from 'express'
import staticFiles from 'express-static-gzip'
import helmet from 'helmet'
import { type CalcPool, slowWork } from './calc/pool'
import { calcRoutes } from './calc/routes'
import { cardRoutes } from './card/routes'
import { choosingRoutes } from './choosing/routes'
import type { Database } from './db/database'
import { defectRoutes } from './defects/routes'
import { dueRoutes } from './due/routes'
import { refuseDepth } from './http/depth'
import { notFound, reads } from './http/routes'
import { inspectionRoutes } from './inspections/routes'
import { journalRoutes } from './journal/routes'
import type { Sealing } from './key/sealing'
import type { SigningKey } from './key/signing'
import { lifeRoutes } from './life/routes'
import { liftRoutes } from './lift/routes'
import type { Live } from './live/live'
import { orderFileRoutes } from './orders/routes'
import { peopleRoutes } from './people/routes'
import type { Photos } from './photos/photos'
import { placeRoutes } from './place/routes'
import { practiceRoutes } from './practice/routes'
import { asProblem, Problem, problemBody } from './problem/problem'
import { proveRoutes } from './prove/routes'
import { readMe, sessions } from './session/session'
import { setupRoutes } from './setup/routes'
import { orderRoutes } from './shift/order'
import { shiftRoutes } from './shift/routes'
import { secondCodeRoutes } from './shift/second-codes'
import { siteRoutes } from './site/routes'
import { stowRoutes } from './stow/routes'
import { tableRoutes } from './tables/routes'
import { version } from './version'
import { walkroundRoutes } from './walkround/routes'
import { walkroundTemplateRoutes } from './walkround/templates'
import { readMachine, readYard } from './yard/yard'

export interface AppOptions {
  db: Database
  /** The same by the role that looks up who signs on. */
  door: Database
  /** What exports are signed with. */
  signing: SigningKey
  /** What opens a second person's badge and PIN that a device has kept. */
  sealing: Sealing
  live: Live
  calc: CalcPool
  photos: Photos
  /** Folder of the built interface. */
  web: string | null
  /** Shown on the sign-on screen in demo mode only. */
  demo: DemoPeople | null
  secure: boolean
  trustProxy: string[]
  hosts: string[]
  idleHours: number
  /** False while the process is being stopped: it finishes what it has and is given nothing new. */
  serving: () => boolean
}

const thisMachine = /^(127\.0\.0\.1|localhost|\[::1\])(:\d+)?$/

/** Asked under a name that is ours; another name points here from a page that is not. */
const ourHost = (hosts: readonly string[]) => (req: Request, _res: Response, next: NextFunction) => {
  const host = req.get('host') ?? ''
  if (!(hosts.length === 0 ? thisMachine.test(host) : hosts.includes(host)))
    throw new Problem(421, 'other-host', 'This server is not asked under this name.', 'Host')
  next()
}

/** Writes come from our own pages only: same origin by the browser's own word, and never a form. */
function sameOriginOnly(req: Request, _res: Response, next: NextFunction) {
  if (req.method !== 'GET' && req.method !== 'HEAD') {
    const site = req.get('sec-fetch-site')
    const origin = req.get('origin')
    const host = origin === undefined || !URL.canParse(origin) ? origin : new URL(origin).host
    const foreign = (site !== undefined && site !== 'same-origin') || (host !== undefined && host !== req.get('host'))
    if (foreign || req.get('x-geolabe') !== '1')
      throw new Problem(403, 'foreign', 'This write did not come from Geolabe’s own pages.')
  }
  next()
}

const policy = (nonce: string | null) =>
  helmet.contentSecurityPolicy({
    useDefaults: false,
    directives: {
      defaultSrc: ["'self'"],
      scriptSrc: ["'self'"],
      styleSrc: ["'self'", ...(nonce === null ? [] : [`'nonce-${nonce}'`])],
      imgSrc: ["'self'", 'blob:', 'data:'],
      workerSrc: ["'self'"],
      connectSrc: ["'self'"],
      objectSrc: ["'none'"],
      frameAncestors: ["'none'"],
      baseUri: ["'none'"],
      formAction: ["'self'"],
    },
  })

const json = (limit: string) => express.json({ limit, verify: refuseDepth })

export function makeApp(o: AppOptions): express.Express {
  const { db, live, secure } = o
  const app = express()
  app.disable('x-powered-by')
  app.set('trust proxy', o.trustProxy.length > 0 ? o.trustProxy : false)
  app.use(helmet({ contentSecurityPolicy: false, strictTransportSecurity: secure }))
  app.use(policy(null))
  app.use((_req, res, next) => {
    // A picture is taken with the device's own camera through a file field; nothing else of the device is asked for.
    res.setHeader('Permissions-Policy', 'camera=(), microphone=(), geolocation=(), payment=(), usb=(), interest-cohort=()')
    next()
  })
  app.use(ourHost(o.hosts))
  // Streams are told as they happen: held back to be packed they would be late.
  app.use(compression({ filter: (req, res) => !req.path.endsWith('/live') && compression.filter(req, res) }))
  const api = Router()
  api.use((_req, res, next) => {
    res.setHeader('Cache-Control', 'no-store')
    next()
  })
  api.use(healthRoutes(o))
  // Calculators carry no one's data: open to scripts as well as to the pages.
  api.use('/calc', json('1mb'))
  api.use(calcRoutes(o.calc))
  api.use(sameOriginOnly)
  const session = sessions(db, o.door, { secure, idleHours: o.idleHours })
  api.get('/demo', (_req, res) => {
    res.json(o.demo ?? { people: [] })
  })
  api.post('/session', json('8kb'), session.signIn)
  api.delete('/session', session.signOut)
  api.use(session.guard)
  // Read only for who is signed on.
  api.use(json('4mb'))
  api.get('/session', reads(db, readMe))
  api.get('/yard', reads(db, readYard))
  api.get(
    '/machines/:id',
    reads(db, (tx, req) => readMachine(tx, String(req.params.id))),
  )
  api.use(placeRoutes(db))
  api.get('/live', live.serve)
  api.use(orderRoutes(db, session.whoIs, o.sealing))
  api.use(secondCodeRoutes(db, o.sealing, session.takeCodeTry))
  for (const routes of [shiftRoutes, walkroundRoutes, siteRoutes, setupRoutes, proveRoutes, liftRoutes, stowRoutes])
    api.use(routes(db))
  api.use(defectRoutes(db, o.photos))
  api.use(tableRoutes(db))
  for (const routes of [walkroundTemplateRoutes, inspectionRoutes, lifeRoutes, dueRoutes, peopleRoutes]) api.use(routes(db))
  const slow = slowWork(o.calc)
  api.use(choosingRoutes(db, slow))
  api.use(orderFileRoutes(db, slow))
  api.use(practiceRoutes(db, slow, o.signing))
  api.use(journalRoutes(db))
  api.use(cardRoutes(db, o.signing, o.calc))
  api.use(() => {
    throw notFound('This address')
  })
  app.use('/api', api)
  if (o.web && existsSync(o.web)) servePages(app, o.web)
  app.use((e: unknown, _req: Request, res: Response, _next: NextFunction) => {
    const p = asProblem(e)
    if (!p) console.error(e)
    const said =
      p ??
      new Problem(500, 'our-fault', 'Something went wrong on our side. What you entered stays on this device and is sent again.')
    if (res.headersSent) {
      res.destroy()
      return
    }
    const wait_s = said.retryAfter_s ?? (said.status === 503 ? 2 : undefined)
    if (wait_s !== undefined) res.setHeader('Retry-After', String(wait_s))
    res.status(said.status).json(problemBody(said))
  })
  return app
}

/** Whether the process runs, and whether it can be given work: for whatever watches over it. */
function healthRoutes({ db, serving, signing, sealing }: AppOptions): Router {
  const router = Router()
  router.get('/health', (_req, res) => {
    res.json({ ok: true, version, uptime_s: Math.round(process.uptime()) })
  })
  // What somebody elsewhere checks an export of ours with, and what a device seals a PIN with.
  router.get('/installation', (_req, res) => {
    res.json({ id: signing.id, publicKey: signing.publicKey, sealKey: sealing.publicKey })
  })
  router.get('/ready', async (_req, res) => {
    if (!serving()) throw new Problem(503, 'stopping', 'This server is being stopped.')
    await db.query('select 1')
    res.json({ ok: true })
  })
  return router
}

/** The built interface: packed beforehand, kept by browsers for as long as its name stands, the page itself asked for each time. */
function servePages(app: express.Express, web: string): void {
  const page = readFileSync(join(web, 'index.html'), 'utf8')
  const sendPage: express.RequestHandler = (req, res, next) => {
    // Styles that are made while the page runs carry this word; nobody else knows it.
    const nonce = randomBytes(16).toString('base64')
    policy(nonce)(req, res, (e?: unknown) => {
      if (e) return next(e)
      res.setHeader('Cache-Control', 'no-cache')
      res.type('html').send(page.replace('%NONCE%', nonce))
    })
  }
  // By its own name too: what keeps the page for when there is no network asks for it so.
  app.get('/index.html', sendPage)
  app.use(
    staticFiles(web, {
      index: false,
      enableBrotli: true,
      orderPreference: ['br', 'gz'],
      serveStatic: {
        index: false,
        maxAge: '1y',
        immutable: true,
        // What keeps its name from one version to the next is asked for anew each time.
        setHeaders: (res, path) => {
          if (/(sw|registerSW)\.js(\.br|\.gz)?$|\.webmanifest$/.test(path)) res.setHeader('Cache-Control', 'no-cache')
        },
      },
    }),
  )
  app.get('/{*path}', sendPage)
}
