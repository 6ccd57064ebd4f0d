import { existsSync } from 'node:fs'
import { join } from 'node:path'
import type { DemoPeople } from '@geolabe/contract'
import express, { type NextFunction, type Request, type Response, Router } from 'express'
import helmet from 'helmet'
import { calcRoutes } from './calc/routes'
import { cardRoutes } from './card/routes'
import type { Database } from './db/database'
import { defectRoutes } from './defects/routes'
import { dueRoutes } from './due/routes'
import { asProblem, Problem, problemBody } from './http/problem'
import { notFound, reads } from './http/routes'
import { inspectionRoutes } from './inspections/routes'
import { journalRoutes } from './journal/routes'
import { lifeRoutes } from './life/routes'
import { liftRoutes } from './lift/routes'
import type { Live } from './live/live'
import { peopleRoutes } from './people/routes'
import { proveRoutes } from './prove/routes'
import { readMe, sessions } from './session/session'
import { setupRoutes } from './setup/routes'
import { shiftRoutes } from './shift/routes'
import { siteRoutes } from './site/routes'
import { stowRoutes } from './stow/routes'
import { tableRoutes } from './tables/routes'
import { walkroundRoutes } from './walkround/routes'
import { walkroundTemplateRoutes } from './walkround/templates'
import { readMachine, readPlaces, readYard } from './yard/yard'

export interface AppOptions {
  db: Database
  live: Live
  /** Folder of the built interface. */
  web: string | null
  /** Shown on the sign-on screen in demo mode only. */
  demo: DemoPeople | null
  secureCookies: boolean
}

/** Writes come from our own pages only: same origin by the browser's own word, and never a form. */
function sameOriginOnly(req: Request, _res: Response, next: NextFunction) {
  if (req.method !== 'GET' && req.method !== 'HEAD') {
    const site = req.get('sec-fetch-site')
    const origin = req.get('origin')
    const foreign =
      (site !== undefined && site !== 'same-origin') || (origin !== undefined && new URL(origin).host !== req.get('host'))
    if (foreign || req.get('x-geolabe') !== '1')
      throw new Problem(403, 'foreign', 'This write did not come from Geolabe’s own pages.')
  }
  next()
}

export function makeApp({ db, live, web, demo, secureCookies }: AppOptions): express.Express {
  const app = express()
  app.disable('x-powered-by')
  app.use(
    helmet({
      contentSecurityPolicy: {
        useDefaults: false,
        directives: {
          defaultSrc: ["'self'"],
          scriptSrc: ["'self'"],
          styleSrc: ["'self'", "'unsafe-inline'"],
          imgSrc: ["'self'", 'blob:', 'data:'],
          workerSrc: ["'self'"],
          connectSrc: ["'self'"],
          objectSrc: ["'none'"],
          frameAncestors: ["'none'"],
          baseUri: ["'none'"],
          formAction: ["'self'"],
        },
      },
      strictTransportSecurity: secureCookies,
    }),
  )
  const api = Router()
  api.use(calcOpen())
  api.use(sameOriginOnly)
  api.use(express.json({ limit: '4mb' }))
  const session = sessions(db, secureCookies)
  api.get('/demo', (_req, res) => {
    res.json(demo ?? { people: [] })
  })
  api.post('/session', session.signIn)
  api.delete('/session', session.signOut)
  api.use(session.guard)
  api.get('/session', reads(db, readMe))
  api.get('/yard', reads(db, readYard))
  api.get(
    '/machines/:id',
    reads(db, (tx, req) => readMachine(tx, String(req.params.id))),
  )
  api.get('/places', reads(db, readPlaces))
  api.get('/live', live.serve)
  for (const routes of [shiftRoutes, walkroundRoutes, siteRoutes, setupRoutes, proveRoutes, liftRoutes, stowRoutes])
    api.use(routes(db))
  api.use(defectRoutes(db))
  api.use(tableRoutes(db))
  for (const routes of [walkroundTemplateRoutes, inspectionRoutes, lifeRoutes, dueRoutes, peopleRoutes]) api.use(routes(db))
  api.use(journalRoutes(db))
  api.use(cardRoutes(db))
  api.use(() => {
    throw notFound('This address')
  })
  app.use('/api', api)
  if (web && existsSync(web)) {
    app.use(
      express.static(web, {
        index: false,
        maxAge: '1y',
        immutable: true,
        // What keeps its name from one version to the next is asked for anew each time.
        setHeaders: (res, path) => {
          if (/(sw|registerSW)\.js$|index\.html$|\.webmanifest$/.test(path)) res.setHeader('Cache-Control', 'no-cache')
        },
      }),
    )
    app.get('/{*path}', (_req, res) => {
      res.setHeader('Cache-Control', 'no-cache')
      res.sendFile(join(web, 'index.html'))
    })
  }
  app.use((e: unknown, _req: Request, res: Response, _next: NextFunction) => {
    const p = asProblem(e)
    if (!p) console.error(e)
    const said =
      p ??
      new Problem(500, 'our-fault', 'Something went wrong on our side. What you entered stays on this device and is sent again.')
    if (!res.headersSent) res.status(said.status).json(problemBody(said))
  })
  return app
}

/** Calculators carry no one's data: open to scripts as well as to the pages. */
function calcOpen(): Router {
  const router = Router()
  router.use(express.json({ limit: '4mb' }))
  router.use(calcRoutes())
  return router
}
