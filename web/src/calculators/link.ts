import { isObj, type Obj } from './schema'

/** An input in a link: behind #, so that no server sees it. */
export function toLink(input: Obj): string {
  const bytes = new TextEncoder().encode(JSON.stringify(input))
  const text = Array.from(bytes, (b) => String.fromCharCode(b)).join('')
  return `in=${btoa(text).replaceAll('+', '-').replaceAll('/', '_').replace(/=+$/, '')}`
}

/** The input that a link carries; null where it carries none or it cannot be read. */
export function fromLink(hash: string): Obj | null {
  const found = /(?:^#|&)in=([\w-]+)/.exec(hash)?.[1]
  if (!found) return null
  try {
    const text = atob(found.replaceAll('-', '+').replaceAll('_', '/'))
    const value: unknown = JSON.parse(new TextDecoder().decode(Uint8Array.from(text, (c) => c.charCodeAt(0))))
    return isObj(value) ? value : null
  } catch {
    return null
  }
}
