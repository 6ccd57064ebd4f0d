import type { CertificateLine, Game } from '@geolabe/contract'
import type { LoadSet } from '@geolabe/core'
import PDFDocument from 'pdfkit'
import { bold, ink, mono, quiet, regular } from '../paper/type'

const margin = 48

const gameWords: Record<Game, string> = {
  load: 'Load control',
  drive: 'Driving',
  sequence: 'Order of work',
  signal: 'Hand signals',
  judge: 'Reading its tables',
}

const stateWords: Record<CertificateLine['state'], string | null> = {
  'in-date': null,
  expired: 'OUT OF DATE',
  'earlier-machine': 'FOR AN EARLIER MACHINE: its levers, figures or tables have changed since.',
}

/** What the assessor had set of it, as it is printed. */
const setWords = ({ across, along, wind, clock }: LoadSet): string =>
  [
    across && `swing of ${across.amplitude_deg}° across the boom`,
    along && `swing of ${along.amplitude_deg}° along the boom`,
    wind && `wind ${wind.mean_mps} m/s, in gusts ${Math.round(10 * (wind.mean_mps + wind.gust_mps)) / 10} m/s`,
    clock === 'hidden' && 'no clock shown',
    typeof clock === 'number' && `a clock running down from ${clock} s`,
  ]
    .filter((x) => typeof x === 'string')
    .join('; ')

/** A certificate of practice on a page: what was shown, by whom it was seen, and what it is not. */
export function certificateOnPaper({ file: c, state }: CertificateLine): PDFKit.PDFDocument {
  const doc = new PDFDocument({
    size: 'A4',
    margin,
    info: { Title: `Certificate of practice · ${c.person.name}` },
    lang: 'en-GB',
  })
  const width = doc.page.width - 2 * margin
  const line = (label: string, value: string) => {
    doc.font(regular).fontSize(11).fillColor(quiet).text(label, { continued: true })
    doc.font(bold).fillColor(ink).text(`  ${value}`)
    doc.moveDown(0.35)
  }
  doc.font(regular).fontSize(11).fillColor(quiet).text(c.organisation.name)
  doc.font(bold).fontSize(26).fillColor(ink).text('Certificate of practice')
  doc.moveDown(0.3).font(bold).fontSize(13).text(c.says, { width })
  const mark = stateWords[state]
  if (mark) doc.moveDown(0.4).fontSize(13).fillColor('#8c1d40').text(mark, { width })
  doc.moveDown(1).fillColor(ink).fontSize(20).text(c.person.name).moveDown(0.5)
  line('Practised', `${gameWords[c.game]}, level ${Math.round(100 * c.level)} of 100`)
  if (c.settings) line('Set by the assessor', setWords(c.settings))
  line('On', `${c.machine.name}, ${c.machine.kind}, revision ${c.machine.revision}`)
  line('Passed', `${c.runs.length} of ${c.triesMade === 1 ? '1 try' : `${c.triesMade} tries`}`)
  line('Assessed by', c.assessor.name)
  line('Issued', c.issuedOn)
  line('Valid until', c.validUntil)
  if (c.words) doc.moveDown(0.3).font(regular).fontSize(11).text(c.words, { width })
  doc.moveDown(1).font(bold).fontSize(13).text('What was passed')
  for (const r of c.runs) {
    doc
      .moveDown(0.5)
      .font(bold)
      .fontSize(11)
      .fillColor(ink)
      .text(`${Math.round(r.score)} of 100, ${r.at.slice(0, 16).replace('T', ' ')} UTC`)
    doc.font(regular)
    if (r.scoreByHand !== null) doc.text(`By the assessor’s own hand: ${Math.round(r.scoreByHand)} of 100`)
    doc.text(r.errors.length > 0 ? `Went wrong all the same: ${r.errors.join(', ').replaceAll('-', ' ')}` : 'Nothing went wrong.')
    doc.font(mono).fontSize(8).fillColor(quiet).text(`seed ${r.seed} · run ${r.id}`).text(`sha-256 ${r.sha256}`)
  }
  doc.moveDown(1.2).font(regular).fontSize(9).fillColor(quiet)
  doc.text(
    `Certificate ${c.id}. The file of this certificate can be checked without a network against the key of this installation:`,
  )
  doc
    .font(mono)
    .fontSize(8)
    .text(c.signature?.publicKey ?? 'not signed')
  doc.end()
  return doc
}
