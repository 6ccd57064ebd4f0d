// Runs in a process of its own: decoding shares four threads with whatever else a process does, and a picture may be made to take them.
import sharp from 'sharp'

sharp.cache(false)
sharp.concurrency(1)

const largest_px = 20_000_000
const accepted = new Set(['jpeg', 'png', 'webp'])

/**
 * Decoded and encoded anew: proves that it is a picture, bounds its size, and leaves its metadata behind. Of an animation the first
 * picture. Null: not one that is taken.
 */
export default async function reencode(job) {
  if (job === null) return null
  const bytes = Buffer.from(job.input)
  try {
    const options = { limitInputPixels: largest_px, failOn: 'error', pages: 1, sequentialRead: true }
    const { format, width = 0, height = 0 } = await sharp(bytes, options).metadata()
    if (!accepted.has(format) || width * height > largest_px || width === 0) return null
    const kept = await sharp(bytes, options)
      .rotate()
      .resize(1600, 1600, { fit: 'inside', withoutEnlargement: true })
      .flatten({ background: '#ffffff' })
      .toColourspace('srgb')
      .jpeg({ quality: 80 })
      .toBuffer()
    return new Uint8Array(kept)
  } catch {
    return null
  }
}
