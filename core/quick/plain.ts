import { InputError } from '#core/quantity/inputError'
import { tradeWords } from './tradeWords'

const DEEPEST = 50

/**
 * A typed line in the plain form that the grammar reads: lower case, half-width, quotes and a closing full stop blank, a decimal comma
 * as a point. Character for character as long as what was typed, so that a place in one is a place in the other.
 * @throws InputError at a comma that may be decimal or part a thousand, and at brackets nested beyond reason
 */
export function plainText(text: string): string {
  let plain = ''
  // By UTF-16 units: what lies beyond them is no part of the language and stands as it is.
  for (let k = 0; k < text.length; k++) plain += plainCharacter(text[k]!)
  plain = plain.replace(/[.?=]\s*$/, ending => ' '.repeat(ending.length))
  // Of watts a point may part thousands, too: nobody states one and a half of them to the milliwatt.
  const thousands = /(?<![\d.,])\d{1,3},\d{3}(?![\d,])|(?<![\d.,])\d{1,3}\.\d{3}(?=\s*(?:w|watts?)\b)/.exec(plain)
  if (thousands) {
    const [whole, broken] = [thousands[0].replace(/[.,]/, ''), String(Number(thousands[0].replace(',', '.')))]
    throw new InputError(`“${thousands[0]}”: ${whole}, or ${broken}?`, thousands.index, [whole, broken])
  }
  let depth = 0
  for (let k = 0; k < plain.length; k++) {
    if ('(['.includes(plain[k]!) && ++depth > DEEPEST) throw new InputError(`More than ${DEEPEST} brackets inside each other.`, k, [])
    if (')]'.includes(plain[k]!)) depth--
  }
  return tradeWords(plain.replace(/(?<=\d),(?=\d)/g, '.'))
}

function plainCharacter(typed: string): string {
  const code = typed.charCodeAt(0)
  // Full-width forms stand 0xFEE0 above their own.
  if (code >= 0xFF01 && code <= 0xFF5E) return plainCharacter(String.fromCharCode(code - 0xFEE0))
  if ('"\'“”„‘’«»`\u00A0\u3000'.includes(typed)) return ' '
  if ('\u03A9\u2126'.includes(typed)) return 'ω'
  if ('\u2010\u2011\u2012\u2013'.includes(typed)) return '-'
  const lower = typed.toLowerCase()
  return lower.length === 1 ? lower : typed
}
