import { boxOf, type DrawingLayer, type PlanDrawing } from '@geolabe/core'
import { DxfWriter, LWPolylineFlags, point2d, point3d, Units } from '@tarikjabiri/dxf'
import PDFDocument from 'pdfkit'
import { bold, regular } from '../paper/type'

const mm = (m: number) => Math.round(m * 1e6) / 1e3

/** Colours of the layers by the format's own numbers, so that what carries is told from what stands round it. */
const colours: Record<string, number> = { PLACE: 8, MACHINE: 7, OUTRIGGERS: 5, MATS: 4, TAIL: 1, PATH: 6, BOOM: 7, LOAD: 30 }

/** A plan as DXF: millimetres, true to scale, in the place's own frame, each part on its layer. */
export function dxfOf(d: PlanDrawing): string {
  const dxf = new DxfWriter()
  dxf.setUnits(Units.Millimeters)
  for (const layer of d.layers) {
    dxf.addLayer(layer.name, colours[layer.name] ?? 7, 'Continuous')
    dxf.setCurrentLayerName(layer.name)
    for (const s of layer.strokes) {
      if (s.kind === 'circle') dxf.addCircle(point3d(mm(s.centre.x_m), mm(s.centre.y_m)), mm(s.radius_m))
      else if (s.kind === 'text') dxf.addText(point3d(mm(s.at.x_m), mm(s.at.y_m)), mm(s.height_m), s.words)
      else {
        dxf.addLWPolyline(
          s.points.map((p) => ({ point: point2d(mm(p.x_m), mm(p.y_m)) })),
          { flags: s.closed ? LWPolylineFlags.Closed : LWPolylineFlags.None },
        )
      }
    }
  }
  return dxf.stringify()
}

/** Scales that a ruler has. */
const scales = [20, 50, 100, 150, 200, 250, 500, 1000, 2000]
const perMetre_pt = 72 / 0.0254
const margin = 36
const line_pt: Record<string, number> = {
  PLACE: 0.6,
  MACHINE: 1.1,
  OUTRIGGERS: 1.6,
  MATS: 1,
  TAIL: 0.6,
  PATH: 1.8,
  BOOM: 1.4,
  LOAD: 1.4,
}

/** A plan on one A4 page at the largest scale of a ruler at which machine, outriggers and lift fit; what stands round it is cut there. */
export function planPage(d: PlanDrawing): PDFKit.PDFDocument {
  const doc = new PDFDocument({ size: 'A4', margin, info: { Title: d.title }, lang: 'en-GB' })
  const own = d.layers.filter((l) => l.name !== 'PLACE')
  const { least, most } = boxOf({ ...d, layers: own.length > 0 ? own : d.layers })
  const [across_m, up_m] = [most.x_m - least.x_m + 4, most.y_m - least.y_m + 4]
  const head_pt = 56
  const [width, height] = [doc.page.width - 2 * margin, doc.page.height - 2 * margin - head_pt - 24]
  const scale =
    scales.find((n) => (across_m * perMetre_pt) / n <= width && (up_m * perMetre_pt) / n <= height) ?? (scales.at(-1) as number)
  const k = perMetre_pt / scale
  const [cx, cy] = [(least.x_m + most.x_m) / 2, (least.y_m + most.y_m) / 2]
  const x = (m: number) => margin + width / 2 + (m - cx) * k
  const y = (m: number) => margin + head_pt + height / 2 - (m - cy) * k
  doc.font(bold).fontSize(16).text(d.title, margin, margin)
  doc.font(regular).fontSize(10).text(`Scale 1 : ${scale}, printed without fitting to the page. Measure on site; this is a plan.`)
  doc
    .save()
    .rect(margin, margin + head_pt, width, height)
    .clip()
  for (const layer of d.layers) drawLayer(doc, layer, x, y, k)
  doc.restore()
  doc
    .rect(margin, margin + head_pt, width, height)
    .lineWidth(0.8)
    .stroke('#15243a')
  bar(doc, margin, doc.page.height - margin - 10, k)
  doc.end()
  return doc
}

function drawLayer(doc: PDFKit.PDFDocument, layer: DrawingLayer, x: (m: number) => number, y: (m: number) => number, k: number) {
  doc.lineWidth(line_pt[layer.name] ?? 1)
  for (const s of layer.strokes) {
    if (s.kind === 'circle') doc.circle(x(s.centre.x_m), y(s.centre.y_m), s.radius_m * k).stroke('#15243a')
    else if (s.kind === 'text') {
      doc
        .font(regular)
        .fontSize(8)
        .fillColor('#15243a')
        .text(s.words, x(s.at.x_m) + 3, y(s.at.y_m) - 10, { lineBreak: false })
    } else {
      for (const [i, p] of s.points.entries()) {
        if (i === 0) doc.moveTo(x(p.x_m), y(p.y_m))
        else doc.lineTo(x(p.x_m), y(p.y_m))
      }
      if (s.closed) doc.closePath()
      doc.stroke('#15243a')
    }
  }
}

/** Five metres to measure by, whatever a printer does to the page. */
function bar(doc: PDFKit.PDFDocument, x: number, y: number, k: number) {
  for (let i = 0; i < 5; i++) {
    doc.rect(x + i * k, y, k, 5)
    if (i % 2 === 0) doc.fillAndStroke('#15243a', '#15243a')
    else doc.stroke('#15243a')
  }
  doc
    .font(regular)
    .fontSize(8)
    .fillColor('#15243a')
    .text('5 m', x + 5 * k + 4, y - 2, { lineBreak: false })
}
