import { type PracticeCertificate, practiceCertificate, signedPart } from '@geolabe/contract'
import { bytesOf } from '../api/bytes'

/** What a file handed over turns out to be. */
export type Checked =
  | { is: 'genuine' | 'altered' | 'elsewhere'; certificate: PracticeCertificate }
  | { is: 'none' | 'cannot'; certificate: null }

/**
 * Whether a file is a certificate as this installation signed it. Nothing is asked of the network.
 *
 * @param text of the file
 * @param publicKey of this installation: Ed25519, SPKI in base64
 * @returns `elsewhere`: another installation names itself in it, which nobody here can vouch for
 */
export async function checkCertificate(text: string, publicKey: string): Promise<Checked> {
  let file: unknown
  try {
    file = JSON.parse(text)
  } catch {
    return { is: 'none', certificate: null }
  }
  const { data: certificate } = practiceCertificate.safeParse(file)
  const signature = certificate?.signature
  if (!certificate || !signature) return { is: 'none', certificate: null }
  if (signature.publicKey !== publicKey) return { is: 'elsewhere', certificate }
  let key: CryptoKey
  try {
    key = await crypto.subtle.importKey('spki', bytesOf(publicKey), 'Ed25519', false, ['verify'])
  } catch {
    return { is: 'cannot', certificate: null }
  }
  const signed = new TextEncoder().encode(signedPart(certificate))
  try {
    if (await crypto.subtle.verify('Ed25519', key, bytesOf(signature.value), signed)) return { is: 'genuine', certificate }
  } catch {
    // No signature at all.
  }
  return { is: 'altered', certificate }
}
