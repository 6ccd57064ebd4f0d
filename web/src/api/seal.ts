import { bytesOf } from './bytes'

/**
 * Badge and PIN of the second of two people, so that only the records open them, and for that one act: all that a device keeps of a PIN.
 *
 * @param publicKey of the installation: RSA, SPKI in base64
 */
export async function sealed(publicKey: string, who: { badge: string; pin: string; event: string }): Promise<string> {
  const algorithm = { name: 'RSA-OAEP', hash: 'SHA-256' }
  const key = await crypto.subtle.importKey('spki', bytesOf(publicKey), algorithm, false, ['encrypt'])
  const box = await crypto.subtle.encrypt(algorithm, key, new TextEncoder().encode(JSON.stringify(who)))
  return btoa(String.fromCharCode(...new Uint8Array(box)))
}
