import {
  type AtWorkPage,
  type MachineChoices,
  offerIn,
  type PositionChoices,
  whichMachineRequest,
  whichPositionRequest,
} from '@geolabe/contract'
import {
  type Answer,
  type AtWork,
  type Case,
  forKindOf,
  type Machine,
  neverPractised,
  type Offered,
  parseOrRefuse,
  type Space,
} from '@geolabe/core'
import { type Request, type Response, Router } from 'express'
import type { SlowWork } from '../calc/pool'
import type { Database, Tx } from '../db/database'
import { dueLines } from '../due/read'
import { whoOf } from '../http/routes'
import { machineNamed } from '../library/machine'
import { placeInUse } from '../library/place'
import { tablesOf } from '../library/table'
import { offeredOn } from '../practice/games'
import { practisedBy } from '../practice/practised'
import { readMe } from '../session/session'
import { refusalsToTake } from '../shift/taking'
import { readYard } from '../yard/yard'

const isoToday = () => new Date().toISOString().slice(0, 10)

const offered = async (tx: Tx, id: string): Promise<Offered> => ({
  machine: await machineNamed(tx, id),
  tables: await tablesOf(tx, id),
})

/**
 * Which machine of the yard could do a lift, and where it could stand: every one of them set up in mind and proved afresh, beside the
 * server. Nothing is recorded; what keeps somebody from taking a machine is said with it.
 */
export function choosingRoutes(db: Database, work: SlowWork): Router {
  const router = Router()
  const answers =
    (answer: (req: Request) => Promise<unknown>) =>
    async (req: Request, res: Response): Promise<void> => {
      res.json(await answer(req))
    }
  router.post(
    '/places/:id/which-machine',
    answers(async (req): Promise<MachineChoices> => {
      const { wanted, conditions } = parseOrRefuse(whichMachineRequest, req.body ?? {})
      const read = await db.as(whoOf(req), async (tx) => {
        const place = (await placeInUse(tx, String(req.params.id))).document
        const yard = await readYard(tx)
        const all: Offered[] = []
        for (const { id } of yard.machines) all.push(await offered(tx, id))
        const due = await dueLines(
          tx,
          all.map((o) => o.machine),
        )
        return { place, yard, all, due, me: await readMe(tx), known: await practisedBy(tx) }
      })
      const { place, yard, all, due, me, known } = read
      const found = await work<Answer[]>({ which: { yard: all, asked: { wanted, conditions, place, policy: place.policy } } })
      if (!found) throw new Error('Which machine could do it failed; see the log.')
      const barred = ({ id }: Pick<Machine, 'id'>) => {
        const one = all.find((o) => o.machine.id === id)
        const state = yard.machines.find((m) => m.id === id)
        if (!one || !state) return []
        const { machine, tables } = one
        const practice = {
          known: forKindOf(known, machine) ?? neverPractised,
          offer: offerIn(offeredOn(machine, tables)),
        }
        return refusalsToTake({ machine, state, due, practice }, me, place.policy, isoToday())
      }
      return {
        answers: found.map((a) => ({
          ...a,
          bars: barred(a.machine).map(({ code, why }) => ({ code, why })),
        })),
      }
    }),
  )
  router.post(
    '/places/:id/which-position',
    answers(async (req): Promise<PositionChoices> => {
      const { wanted, conditions, machine, near } = parseOrRefuse(whichPositionRequest, req.body ?? {})
      const known = await db.as(whoOf(req), async (tx) => ({
        place: (await placeInUse(tx, String(req.params.id))).document,
        one: await offered(tx, machine),
      }))
      const { place, one } = known
      const found = await work<PositionChoices['positions']>({
        where: { one, asked: { wanted, conditions, place, policy: place.policy }, near },
      })
      if (!found) throw new Error('Where it could stand failed; see the log.')
      return { positions: found }
    }),
  )
  router.get(
    '/places/:id/at-work',
    answers(async (req): Promise<AtWorkPage> => {
      const { place, rows, offers } = await db.as(whoOf(req), async (tx) => {
        const place = (await placeInUse(tx, String(req.params.id))).document
        const rows = await atPlace(tx, place.id)
        const offers: Offered[] = []
        for (const r of rows) offers.push(await offered(tx, r.machine))
        return { place, rows, offers }
      })
      const set = rows.flatMap((r, i): (AtWork & { row: Row })[] => {
        const offer = offers[i]
        if (!r.setup || !offer) return []
        const { policy } = place
        const plan = r.plan && r.conditions && { ...offer, setup: r.setup, lift: r.plan, conditions: r.conditions, place, policy }
        return [{ row: r, id: r.machine, name: offer.machine.name, machine: offer.machine, setup: r.setup, plan }]
      })
      const all = set.map(({ row: _, ...m }) => m)
      const found = await work<{ spaces: Space[][]; meetings: AtWorkPage['meetings'] }>({
        together: { all, gap_m: place.policy.thingGap_m },
      })
      if (!found) throw new Error('Who meets whom failed; see the log.')
      return {
        machines: rows.map((r, i) => {
          const known = set.findIndex((s) => s.row === r)
          return {
            id: r.machine,
            name: offers[i]?.machine.name ?? r.machine,
            shift: r.shift,
            operator: r.operator,
            setUp: r.setup !== null,
            lift: r.plan?.hung.load.name ?? null,
            spaces: found.spaces[known] ?? [],
          }
        }),
        meetings: found.meetings,
      }
    }),
  )
  return router
}

interface Row {
  machine: string
  shift: string
  operator: string
  setup: Case['setup'] | null
  plan: Case['lift'] | null
  conditions: Case['conditions'] | null
}

/** Open shifts at a place, each with the set-up and the proof that were recorded last; none from before it moved. */
async function atPlace(tx: Tx, place: string): Promise<Row[]> {
  const r = await tx.query<Row>(
    `select s.machine, s.id as shift, p.name as operator, u.plan as setup, l.plan, l.conditions
     from shift s join person p on p.org = s.org and p.id = s.operator
     left join lateral (
       select x.id, x.plan from setup x where x.org = s.org and x.shift = s.id and (s.moved_at is null or x.at > s.moved_at)
       order by x.at desc limit 1) u on true
     left join lateral (
       select y.plan, y.conditions from lift y where y.org = s.org and y.shift = s.id and y.setup = u.id and y.outcome is null
       order by y.at desc limit 1) l on true
     where s.place = $1 and s.closed_at is null order by s.machine limit 40`,
    [place],
  )
  return r.rows
}
