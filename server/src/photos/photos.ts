import { fileURLToPath } from 'node:url'
import { Problem } from '../problem/problem'
import { BoundedPool } from '../work/bounded-pool'

const unreadable = () =>
  new Problem(
    422,
    'unreadable-photo',
    'This file is not a JPEG, PNG or WebP picture that can be read, or larger than 20 megapixels. Take it again or choose another; the defect itself is kept.',
    'photo',
  )

/** First bytes of the kinds that are taken; anything else never reaches a decoder. */
function isPicture(bytes: Buffer): boolean {
  const text = (from: number, to: number) => bytes.subarray(from, to).toString('latin1')
  const jpeg = bytes.length > 3 && bytes[0] === 0xff && bytes[1] === 0xd8 && bytes[2] === 0xff
  const png = text(0, 8) === '\x89PNG\r\n\x1a\n'
  return jpeg || png || (text(0, 4) === 'RIFF' && text(8, 12) === 'WEBP')
}

/** Pictures worked on one at a time, two waiting, two seconds each. */
export class Photos {
  private readonly pool = new BoundedPool<Uint8Array, Uint8Array | null>({
    filename: fileURLToPath(new URL('./reencode.mjs', import.meta.url)),
    runtime: 'child_process',
    workers: 1,
    waiting: 2,
    limit_ms: 1800,
    busy: 'Pictures are waiting here already; it is kept on this device and sent again.',
    overdue: unreadable,
  })

  /** @throws Problem 422 for what is no such picture or takes too long, 503 while others wait. */
  async readable(bytes: Buffer): Promise<Buffer> {
    if (!isPicture(bytes)) throw unreadable()
    const kept = await this.pool.run(bytes)
    if (kept === null) throw unreadable()
    return Buffer.from(kept)
  }

  end = (): Promise<void> => this.pool.end()
}
