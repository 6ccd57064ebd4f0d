import { fileFormats, jsonSchemaOf } from '@geolabe/contract'
import { calculatorNamed, calculators, isRefusal } from '@geolabe/core'
import { Router } from 'express'
import { z } from 'zod'
import { notFound } from '../http/routes'
import type { CalcPool } from './pool'

const schema = (s: z.ZodType, io: 'input' | 'output') => z.toJSONSchema(s, { io, unrepresentable: 'any' })

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
