import { messageOf } from '@geolabe/core'
import { Fragment, type ReactNode } from 'react'
import { inUse } from './t'

/** A sentence with parts that are drawn: a figure set large, a link. Like `t`, each part where the language has it. */
export function rich(strings: TemplateStringsArray, ...nodes: ReactNode[]): ReactNode {
  const parts = inUse()?.parts(messageOf(strings), nodes) ?? strings.flatMap((s, i) => (i === 0 ? [s] : [nodes[i - 1], s]))
  return parts.map((part, i) => (
    // biome-ignore lint/suspicious/noArrayIndexKey: A sentence's parts have no other name than their place in it.
    <Fragment key={i}>{part}</Fragment>
  ))
}
