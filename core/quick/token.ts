/** One piece of a typed line. `at` and `end` count characters of the text. */
export interface Token {
  kind: 'number' | 'word' | 'symbol' | 'end' | 'stray'
  /** Normal form: a word in its one spelling, a symbol, "" at the end. */
  text: string
  /** For a number its value. */
  value: number
  at: number
  end: number
}

const SPELLINGS: Record<string, string> = {
  'ohm': 'ohm', 'ohms': 'ohm', '\u03a9': 'ohm', '\u2126': 'ohm', '\u03c9': 'ohm', 'r': 'ohm', 'w': 'W', 'watt': 'W', 'watts': 'W', 'kw': 'kW', 'v': 'V', 'volt': 'V', 'volts': 'V',
  'x': 'x', '×': 'x', '*': 'x', 'times': 'x', 'parallel': 'parallel', 'par': 'parallel', 'series': 'series', 'ser': 'series', 'in': 'in',
  'on': 'on', 'into': 'on', 'at': 'at', '@': 'at', 'from': 'from', 'and': ',', ',': ',', '+': '+', '||': '||', '//': '||', '∥': '||', '(': '(', ')': ')',
}

const NUMBER = /(\d+)k(\d+)|(\d+(?:\.\d+)?|\.\d+)(k(?![a-z]))?/iy
/** Words end where a digit begins: "x8", "on70". A single letter x may touch the number before it. */
const WORD = /\p{L}+/uy
const SYMBOL = /\|\||\/\/|[+()×*,@∥]/uy

/** Cuts a line into tokens; what belongs nowhere becomes a `stray`, for the parser to complain of in its place. */
export function tokensOf(text: string): Token[] {
  const tokens: Token[] = []
  let at = 0
  const matchAt = (pattern: RegExp) => {
    pattern.lastIndex = at
    return pattern.exec(text)
  }
  while (at < text.length) {
    if (/\s/.test(text[at]!)) {
      at++
      continue
    }
    const number = matchAt(NUMBER)
    const piece = number ?? matchAt(WORD) ?? matchAt(SYMBOL)
    const raw = piece?.[0] ?? String.fromCodePoint(text.codePointAt(at)!)
    const end = at + raw.length
    if (number) {
      const [, whole, part, plain, kilo] = number
      const value = whole !== undefined ? Number(`${whole}.${part}`) * 1000 : Number(plain) * (kilo ? 1000 : 1)
      tokens.push({ kind: 'number', text: raw, value, at, end })
    }
    else {
      const normal = SPELLINGS[raw] ?? SPELLINGS[raw.toLowerCase()]
      const kind = normal === undefined ? 'stray' : /^\p{L}/u.test(normal) ? 'word' : 'symbol'
      tokens.push({ kind, text: normal ?? raw, value: Number.NaN, at, end })
    }
    at = end
  }
  tokens.push({ kind: 'end', text: '', value: Number.NaN, at: text.length, end: text.length })
  return tokens
}
