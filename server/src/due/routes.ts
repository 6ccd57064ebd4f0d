import { dutyDoneRequest } from '@geolabe/contract'
import { Router } from 'express'
import ical from 'ical-generator'
import type { Database } from '../db/database'
import { reads, whoOf, writes } from '../http/routes'
import { machineNamed } from '../library/machine'
import { Problem } from '../problem/problem'
import { readMe } from '../session/session'
import { readDue } from './read'

const who = { operator: 'Operator', fitter: 'Fitter', outside: 'Outside examiner' } as Record<string, string>

/** What falls due: read, recorded as done, and as a calendar for other programs. */
export function dueRoutes(db: Database): Router {
  const router = Router()
  router.get('/due', reads(db, readDue))
  router.get('/exports/due.ics', async (req, res) => {
    const { page, organisation } = await db.as(whoOf(req), async (tx) => ({
      page: await readDue(tx),
      organisation: (await readMe(tx)).organisation,
    }))
    const calendar = ical({ name: `${organisation.name}: what falls due`, prodId: { company: 'Geolabe', product: 'Geolabe' } })
    for (const d of page.due) {
      if (d.date === null) continue
      // The same duty keeps its id, so that a calendar read again moves it rather than adding another.
      calendar.createEvent({
        id: `${d.machine}.${d.duty}@${organisation.id}.geolabe`,
        start: new Date(`${d.date}T00:00:00Z`),
        allDay: true,
        summary: `${d.machineName}: ${d.label}`,
        description: [
          `${who[d.by] ?? d.by}. ${d.source}.`,
          d.state === 'overdue' ? 'Overdue.' : '',
          d.expectedBy === 'use' ? 'Expected from present use.' : '',
          d.last ? `Last done ${d.last.on}.` : '',
        ]
          .filter(Boolean)
          .join(' '),
      })
    }
    res.setHeader('Content-Disposition', 'attachment; filename="what-falls-due.ics"')
    res.type('text/calendar').send(calendar.toString())
  })
  router.post(
    '/machines/:id/duties',
    writes(db, dutyDoneRequest, async (tx, b, req) => {
      const machine = await machineNamed(tx, String(req.params.id))
      const duty = machine.duties.find((d) => d.id === b.duty)
      if (!duty) throw new Problem(422, 'unknown-duty', 'This machine has no such duty.', 'duty')
      const me = await readMe(tx)
      const may = {
        operator: ['operator', 'fitter', 'person-in-charge'],
        fitter: ['fitter', 'person-in-charge'],
        outside: ['person-in-charge', 'administrator'],
      }[duty.by]
      if (!me.roles.some((r) => may.includes(r))) {
        throw new Problem(403, 'not-your-part', `“${duty.label}” is recorded by: ${may.join(', ').replaceAll('-', ' ')}.`)
      }
      if (b.on > new Date().toISOString().slice(0, 10)) {
        throw new Problem(422, 'in-the-future', 'This day has not come yet.', 'on')
      }
      if (duty.every_hours !== undefined && b.hours === null) {
        throw new Problem(422, 'no-hours', 'It goes by hours: give the meter’s reading.', 'hours')
      }
      await tx.query(
        'insert into duty_done (org, id, machine, duty, done_on, hours, by, words) values ($1, $2, $3, $4, $5, $6, $7, $8)',
        [tx.who.org, b.id, machine.id, b.duty, b.on, b.hours, tx.who.person, b.words],
      )
      await tx.journal('duty-done', machine.id, {
        machine: machine.id,
        duty: duty.label,
        on: b.on,
        hours: b.hours,
        words: b.words,
      })
      return { machine: machine.id }
    }),
  )
  return router
}
