import { type Machine, neversOf, onPaper, type PaperStep } from '@geolabe/core'
import PDFDocument from 'pdfkit'
import { bold, ink, mono, quiet, regular } from '../paper/type'

const margin = 42
const gap = 18

/** A machine's order of work to read away from a screen: each step with what must be so before it. It records nothing. */
export function orderOnPaper(machine: Machine, organisation: string): PDFKit.PDFDocument {
  const doc = new PDFDocument({
    size: 'A4',
    margins: { top: margin, left: margin, right: margin, bottom: 40 },
    info: { Title: `Order of work · ${machine.name}`, Author: organisation },
    lang: 'en-GB',
    bufferPages: true,
  })
  const f = machine.procedures
  doc.font(bold).fontSize(24).fillColor(ink).text(`${machine.name}: order of work`)
  doc
    .font(regular)
    .fontSize(10.5)
    .fillColor(quiet)
    .text(`${organisation} · ${machine.kind.label}. To read, not to tick: what is confirmed is confirmed at the machine.`)
  for (const p of f.procedures) {
    title(doc, p.required ? p.label : `${p.label}, when it is wanted`)
    for (const s of onPaper(p)) step(doc, s)
  }
  title(doc, 'What must never be')
  lines(doc, neversOf(f))
  title(doc, 'When a stop was pressed')
  for (const s of f.stops)
    lines(doc, [`${s.label}. Still moves: ${s.stillMoves.join('; ')}. To go on: ${s.reset.join(', then ')}.`])
  if (f.overrides.length > 0) title(doc, 'Overrides')
  for (const o of f.overrides)
    lines(doc, [`${o.label}: ${o.purpose}. Held for ${o.most_s} s at most; then ${o.follow.what.toLowerCase()}.`])
  foot(doc)
  doc.end()
  return doc
}

const columns = (doc: PDFKit.PDFDocument) => {
  const width = doc.page.width - 2 * margin
  return { left: width * 0.52 - gap, at: margin + width * 0.52, right: width * 0.48 }
}
const room = (doc: PDFKit.PDFDocument, height: number) => {
  if (doc.y + height > doc.page.height - doc.page.margins.bottom) doc.addPage()
}

function title(doc: PDFKit.PDFDocument, words: string) {
  room(doc, 70)
  doc.moveDown(0.9).font(bold).fontSize(14).fillColor(ink).text(words, margin)
  doc.moveDown(0.3)
}

/** The step on the left, what must be so before it beside it. */
function step(doc: PDFKit.PDFDocument, { n, words, notes, first }: PaperStep) {
  const { left, at, right } = columns(doc)
  const indent = 24
  const own = { width: left - indent }
  const height = (font: string, size: number, text: string, width: number) =>
    text === '' ? 0 : doc.font(font).fontSize(size).heightOfString(text, { width })
  const [note, before] = [notes.join(' '), first.join('\n')]
  const tall = Math.max(
    height(bold, 10.5, words, own.width) + height(regular, 9, note, own.width),
    height(regular, 9, before, right),
  )
  room(doc, tall + 8)
  const { y } = doc
  doc.font(mono).fontSize(10).fillColor(quiet).text(String(n), margin, y)
  doc
    .font(bold)
    .fontSize(10.5)
    .fillColor(ink)
    .text(words, margin + indent, y, own)
  if (note !== '')
    doc
      .font(regular)
      .fontSize(9)
      .fillColor(quiet)
      .text(note, margin + indent, doc.y, own)
  if (before !== '')
    doc
      .font(regular)
      .fontSize(9)
      .fillColor(ink)
      .text(before, at, y + 1, { width: right })
  doc
    .moveTo(margin, y + tall + 4)
    .lineTo(doc.page.width - margin, y + tall + 4)
    .lineWidth(0.4)
    .stroke('#c3cad3')
  doc.x = margin
  doc.y = y + tall + 8
}

function lines(doc: PDFKit.PDFDocument, all: readonly string[]) {
  for (const words of all) {
    doc.font(regular).fontSize(9.5).fillColor(ink)
    room(doc, doc.heightOfString(words, { width: doc.page.width - 2 * margin }) + 4)
    doc.text(words, margin, doc.y, { width: doc.page.width - 2 * margin })
    doc.moveDown(0.25)
  }
}

function foot(doc: PDFKit.PDFDocument) {
  const { start, count } = doc.bufferedPageRange()
  for (let i = start; i < start + count; i++) {
    doc.switchToPage(i)
    // Below the margin, so that it begins no page of its own.
    doc.page.margins.bottom = 0
    doc
      .font(regular)
      .fontSize(8)
      .fillColor(quiet)
      .text(
        `Page ${i - start + 1} of ${count}. The machine’s own book, local law and licensed people decide.`,
        margin,
        doc.page.height - 26,
        { width: doc.page.width - 2 * margin, lineBreak: false },
      )
  }
}
