import { fileURLToPath } from 'node:url'
import { fileFormats, jsonSchemaOf } from '@geolabe/contract'
import { calculatorNamed, calculators, isRefusal } from '@geolabe/core'
import { Router } from 'express'
import { z } from 'zod'
import { notFound } from '../http/routes'
import { Problem } from '../problem/problem'
import { BoundedPool } from '../work/bounded-pool'
import type { CalcJob } from './calc.worker'

const schema = (s: z.ZodType, io: 'input' | 'output') => z.toJSONSchema(s, { io, unrepresentable: 'any' })

/** Calculators work beside the server, so that no calculation holds up a lift; what takes longer is ended and refused. */
export const calcPool = (limit_ms = 4000) =>
  new BoundedPool<CalcJob, object | null>({
    filename: fileURLToPath(new URL('./worker-entry.mjs', import.meta.url)),
    runtime: 'worker_threads',
    workers: 2,
    waiting: 200,
    limit_ms,
    busy: 'Too many calculations are waiting here; ask again in a moment.',
    overdue: () =>
      new Problem(422, 'too-heavy', 'This takes too long to work out; ask for fewer cells, steps, poses or ± figures at once.'),
  })
export type CalcPool = ReturnType<typeof calcPool>

/** Every calculator by name; the same functions that the screens use. Need no sign-on and no database. */
export function calcRoutes(pool: CalcPool): Router {
  const router = Router()
  router.get('/calc', (_req, res) => {
    res.json({
      calculators: calculators.map((c) => ({
        name: c.name,
        purpose: c.purpose,
        source: c.source,
        cautions: c.cautions,
        example: c.example,
        input: schema(c.input, 'input'),
        output: schema(c.output, 'output'),
      })),
    })
  })
  router.post('/calc/:name', async (req, res) => {
    const c = calculatorNamed(String(req.params.name))
    if (!c) throw notFound('This calculator')
    const answer = await pool.run({ name: c.name, input: req.body })
    if (!answer) throw new Error(`${c.name} failed; see the log.`)
    res.status(isRefusal(answer) ? 422 : 200).json(answer)
  })
  router.get('/schemas/:name', (req, res) => {
    const name = String(req.params.name).replace(/\.json$/, '')
    if (!Object.hasOwn(fileFormats, name)) throw notFound('This schema')
    res.type('application/schema+json').send(JSON.stringify(jsonSchemaOf(name as keyof typeof fileFormats), null, 1))
  })
  return router
}
