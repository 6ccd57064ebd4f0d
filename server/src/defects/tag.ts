import { type Defect, gradeWords } from '@geolabe/contract'
import PDFDocument from 'pdfkit'
import QRCode from 'qrcode'
import { bold, ink, regular } from '../paper/type'

const stop = '#8c1d40'

/** The tag that hangs on a stopped machine: A6, readable at arm's length, its code opens the defect. */
export async function stopTag(d: Defect, kind: string, address: string): Promise<PDFKit.PDFDocument> {
  const code = await QRCode.toBuffer(address, { margin: 1, width: 480, errorCorrectionLevel: 'M' })
  const doc = new PDFDocument({ size: 'A6', margin: 22, info: { Title: `Stop tag · ${d.machine.name}` }, lang: 'en-GB' })
  const [w, h] = [doc.page.width, doc.page.height]
  doc.rect(0, 0, w, 74).fill(stop)
  // A hatch besides the colour, so that it also says stop on a grey printer.
  doc.save().rect(0, 66, w, 8).clip()
  for (let x = -20; x < w + 20; x += 9)
    doc
      .moveTo(x, 76)
      .lineTo(x + 12, 64)
      .lineWidth(3)
      .stroke('#ffffff')
  doc.restore()
  doc.font(bold).fillColor('#ffffff').fontSize(34).text('STOPPED', 22, 16)
  doc.fillColor(ink).fontSize(26).text(d.machine.name, 22, 86)
  doc.font(regular).fontSize(11).text(kind)
  doc.moveDown(0.6).font(bold).fontSize(13).text(gradeWords[d.grade].label)
  doc
    .font(regular)
    .fontSize(12)
    .text(`${d.where}: ${d.words}`, { width: w - 44, height: 84, ellipsis: true })
  doc
    .moveDown(0.4)
    .fontSize(10)
    .text(`${d.raised.by.name}, ${d.raised.at.slice(0, 16).replace('T', ' ')} UTC`)
  doc.image(code, w - 22 - 118, h - 22 - 118, { width: 118 })
  doc
    .font(bold)
    .fontSize(11)
    .text('Do not use. Do not take this tag off.', 22, h - 116, { width: w - 44 - 128, lineBreak: true })
  doc
    .font(regular)
    .fontSize(9.5)
    .text('It comes off when the person in charge has returned the machine to service. The code opens the defect.', {
      width: w - 44 - 128,
    })
  doc.end()
  return doc
}
