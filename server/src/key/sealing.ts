import {
  constants,
  createHash,
  createHmac,
  createPublicKey,
  generateKeyPairSync,
  type KeyObject,
  privateDecrypt,
} from 'node:crypto'
import { badgeAndPin } from '@geolabe/contract'
import { z } from 'zod'
import { Problem } from '../problem/problem'
import { keptSecret } from './kept'

const sealedFor = badgeAndPin.extend({ event: z.string() })
type BadgeAndPin = z.infer<typeof badgeAndPin>

/** What a device without a network keeps of a second person's badge and PIN: nobody but this installation opens it. */
export interface Sealing {
  /** RSA, SPKI in base64. */
  publicKey: string
  /** @throws Problem `needs-second` where it was not sealed for this act, or for another installation */
  open: (sealed: string, event: string) => BadgeAndPin
  /** Six figures that nobody else can make of this text. */
  code: (of: string) => string
}

const figures = 6

function sealingBy(secret: KeyObject): Sealing {
  const open = (sealed: string): unknown =>
    JSON.parse(
      privateDecrypt(
        { key: secret, padding: constants.RSA_PKCS1_OAEP_PADDING, oaepHash: 'sha256' },
        Buffer.from(sealed, 'base64'),
      ).toString('utf8'),
    )
  const own = createHash('sha256')
    .update(secret.export({ type: 'pkcs8', format: 'der' }))
    .digest()
  return {
    code: (of) => String(createHmac('sha256', own).update(of).digest().readUInt32BE(0) % 10 ** figures).padStart(figures, '0'),
    publicKey: createPublicKey(secret).export({ type: 'spki', format: 'der' }).toString('base64'),
    open: (sealed, event) => {
      try {
        const { event: of, ...who } = sealedFor.parse(open(sealed))
        if (of === event) return who
      } catch {
        // Whatever is wrong with it: the second person says it again.
      }
      throw new Problem(
        403,
        'needs-second',
        'This was not sealed for this act: the second person enters badge and PIN again.',
        'second',
      )
    },
  }
}

const made = () => generateKeyPairSync('rsa', { modulusLength: 2048 }).privateKey
/** A key for one run. For tests. */
export const freshSealing = (): Sealing => sealingBy(made())
/** The installation's key, made at its first start. */
export const keptSealing = (path: string): Sealing => sealingBy(keptSecret(path, made))
