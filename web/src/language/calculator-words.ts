import { type Calculator, calculatorWords as inEnglish } from '@geolabe/core'
import { each } from './words'

/** A calculator's name in the person's language, and what it is looked for by. */
export const calculatorWords = (c: Calculator) => each(inEnglish(c))
