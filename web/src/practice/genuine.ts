import { type PracticeCertificate, practiceCertificate, signedPart } from '@geolabe/contract'

const bytes = (base64: string) => Uint8Array.from(atob(base64), (c) => c.charCodeAt(0))

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
  const read = practiceCertificate.safeParse(file)
  if (!read.success || !read.data.signature) return { is: 'none', certificate: null }
  const certificate = read.data
  const { signature } = certificate
  if (!signature || signature.publicKey !== publicKey) return { is: 'elsewhere', certificate }
  let key: CryptoKey
  try {
    key = await crypto.subtle.importKey('spki', bytes(publicKey), 'Ed25519', false, ['verify'])
  } catch {
    return { is: 'cannot', certificate: null }
  }
  const text_ = new TextEncoder().encode(signedPart(certificate))
  const sound = await crypto.subtle.verify('Ed25519', key, bytes(signature.value), text_).catch(() => false)
  return { is: sound ? 'genuine' : 'altered', certificate }
}
