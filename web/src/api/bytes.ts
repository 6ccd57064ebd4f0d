/** What base64 stands for. @throws DOMException for what is none */
export const bytesOf = (base64: string) => Uint8Array.from(atob(base64), (c) => c.charCodeAt(0))
