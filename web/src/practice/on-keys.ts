/**
 * Keys of the whole page, until it is told to let go: pressed, lifted, and all at once where the page loses them.
 *
 * @returns lets go
 */
export function onKeys(press: (e: KeyboardEvent) => void, lift: (e: KeyboardEvent) => void, lose: () => void): () => void {
  addEventListener('keydown', press)
  addEventListener('keyup', lift)
  addEventListener('blur', lose)
  return () => {
    removeEventListener('keydown', press)
    removeEventListener('keyup', lift)
    removeEventListener('blur', lose)
  }
}
