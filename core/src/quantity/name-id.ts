import { z } from 'zod'

/** What a thing of a file is called by others: small letters, figures and hyphens. */
export const nameId = z.string().regex(/^[a-z][a-z0-9-]*$/, 'Small letters, figures and hyphens, beginning with a letter.')
/** The same for what may begin with a figure: a code, a numbered item. */
export const codeId = z.string().regex(/^[a-z0-9][a-z0-9-]*$/, 'Small letters, figures and hyphens.')
