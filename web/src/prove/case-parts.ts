import type { Case } from '@geolabe/core'

/** What of a case stays as it is while somebody plans: told a worker once. */
export type Ground = Pick<Case, 'machine' | 'tables' | 'place' | 'policy'>
/** What somebody changes. */
export type Planned = Pick<Case, 'setup' | 'lift' | 'conditions'>
