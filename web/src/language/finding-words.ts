import * as core from '@geolabe/core'
import { language, told } from './t'
import { each } from './words'

/** A finding, a change, what was not checked, in the person's language. */
export const findingWords = (f: core.Finding, say: core.Say) => core.findingWords(f, say, language)
export const changeWords = (c: core.RemedyKind, say: core.Say) => core.changeWords(c, say, language)
export const uncertaintyWords = (path: string) => told(core.uncertaintyWords(path))
export const notCheckedWords = each(core.notCheckedWords)
