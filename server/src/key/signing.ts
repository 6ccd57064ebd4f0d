import { createHash, createPublicKey, generateKeyPairSync, type KeyObject, sign, verify } from 'node:crypto'
import { type FileSignature, signedPart } from '@geolabe/contract'
import { keptSecret } from './kept'

/** An installation's own key: what it signs, nobody alters unseen. */
export interface SigningKey {
  /** Short name of the public key, the same wherever the file is read. */
  id: string
  /** Ed25519, SPKI in base64. */
  publicKey: string
  sign: (file: object) => FileSignature
}

const idOf = (publicKey: string) => createHash('sha256').update(publicKey).digest('hex').slice(0, 16)

const unsigned = (file: object) => Buffer.from(signedPart(file), 'utf8')

function keyFrom(secret: KeyObject): SigningKey {
  const publicKey = createPublicKey(secret).export({ type: 'spki', format: 'der' }).toString('base64')
  const id = idOf(publicKey)
  return {
    id,
    publicKey,
    sign: (file) => ({ installation: id, publicKey, value: sign(null, unsigned(file), secret).toString('base64') }),
  }
}

/** A key for one run; nothing that it signs is known afterwards. For tests. */
export const freshKey = (): SigningKey => keyFrom(generateKeyPairSync('ed25519').privateKey)

/** The installation's key, made at its first start. */
export const keptKey = (path: string): SigningKey => keyFrom(keptSecret(path, () => generateKeyPairSync('ed25519').privateKey))

/** Whether a file is as the installation that it names signed it. */
export function isGenuine(file: { signature?: FileSignature | undefined }): boolean {
  const s = file.signature
  if (!s || idOf(s.publicKey) !== s.installation) return false
  try {
    const key = createPublicKey({ key: Buffer.from(s.publicKey, 'base64'), format: 'der', type: 'spki' })
    return key.asymmetricKeyType === 'ed25519' && verify(null, unsigned(file), key, Buffer.from(s.value, 'base64'))
  } catch {
    return false
  }
}
