import { setNonce } from 'get-nonce'
import { speakAsChosen } from './units/chosen'
import './style.css'

// Dialogs hold the page still with a style of their own; the page's rules take it by this word.
setNonce(document.querySelector<HTMLMetaElement>('meta[name="style-nonce"]')?.content ?? '')

// Screens say their words as they are loaded: the language is there before them.
await speakAsChosen().catch(() => {})
await import('./start')
