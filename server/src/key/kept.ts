import { createPrivateKey, type KeyObject } from 'node:crypto'
import { chmodSync, existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs'
import { dirname } from 'node:path'

/** A secret key of this installation, made at its first start; read by its owner only. */
export function keptSecret(path: string, make: () => KeyObject): KeyObject {
  if (!existsSync(path)) {
    mkdirSync(dirname(path), { recursive: true })
    const pem = make().export({ type: 'pkcs8', format: 'pem' })
    try {
      // Of several processes that start at once one makes it.
      writeFileSync(path, pem, { mode: 0o600, flag: 'wx' })
    } catch (e) {
      if ((e as NodeJS.ErrnoException).code !== 'EEXIST') throw e
    }
  }
  chmodSync(path, 0o600)
  return createPrivateKey(readFileSync(path))
}
