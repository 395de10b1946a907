/**
 * Words of the trade that a typed line may hold, said as the grammar says them: each in as many characters as before, so that a place in the text stays
 * where it was. `plain` is in lower case already.
 */
export function tradeWords(plain: string): string {
  const all = RULES.reduce((text, [pattern, says]) =>
    text.replace(pattern, (...found: string[]) => fitted(says(found), found[0]!)), plain)
  if (all.length !== plain.length) throw new Error(`“${plain}” came out as “${all}”.`)
  return all
}

const fitted = (says: string, was: string) => says.slice(0, was.length).padEnd(was.length)
const blank = () => ''

/** Where the amplifier begins: what stands before it is the load. */
const AMPLIFIER = String.raw`(?=\s*(?:$|,|on\b|into\b|at\b|@))`
const OHM = String.raw`[\d.]+\s*(?:ohms?|ω)`
const WATT = String.raw`[\d.]+\s*w(?:atts?)?`
const THINGS = String.raw`(?:loud)?speakers?|units?|drivers?|columns?|boxes|box|pieces?|pcs?`

type Rule = readonly [RegExp, (found: string[]) => string]
const RULES: readonly Rule[] = [
  [/;/g, () => ','],
  // Of a rating: which kind of watts, and which of volts, say no more here.
  [/(?<=\d\s*w(?:atts?)?\s*)\b(?:rms|continuous|cont|aes|nominal)\b/g, blank],
  [/(?<=\d\s*)va\b/g, () => 'w'], [/(?<=\d\s*)vrms\b/g, () => 'v'],
  [/\bbridgeable\b/g, blank],
  // "12 speakers at 5 W on 70 V": so many, each on so many watts.
  [new RegExp(String.raw`(?<=\d\s*)(?:(?:${THINGS})\s*)?(?:@|\bat\b)(?=\s*${WATT}(?:\s*(?:each|taps?))?\s*(?:on|into|at|@)\s.*\dv?\s*v)`), () => 'x'],
  [new RegExp(String.raw`(?<=\b\d+\s+)(?:pcs?|pieces?)(?:\s+of)?(?=\s+[\d.])`, 'g'), () => 'x'], [/(?<=\b\d+\s+)of(?=\s+[\d.])/g, () => 'x'],
  [/(?<=\b\d+\s+)columns?\b(?=\s+[\d.])/g, () => 'x'], [/\bcolumns?\b/g, blank],
  // "8s": several of eight.
  [/(?<=\d)s\b/g, blank],
  // "8 ohm / 100 W", "100 W / 8 ohm": of a speaker, before what it hangs on.
  [new RegExp(String.raw`(?<=${OHM}\s*)/(?=\s*${WATT})`, 'g'), () => ' '],
  [new RegExp(String.raw`^(\s*(?:\d+\s*(?:x|×|\*)\s*)?)(${WATT})\s*/\s*(${OHM})(?=.*\b(?:on|into)\b|[^w]*$)`), ([, before, watts, ohms]) => `${before}${ohms} ${watts}`],
  // "8 ohm and 4 ohm in series", "in parallel": how both of them are wired, said behind.
  [new RegExp(String.raw`^(\s*${OHM}[^,|+()]*?\s)and(\s+${OHM}[^,|+()]*?)\s(?:in\s+)?series${AMPLIFIER}`), ([, a, b]) => `${a}+  ${b}`],
  [new RegExp(String.raw`^(\s*${OHM}[^,|+()]*?\s)and(\s+${OHM}[^,|+()]*?)\s(?:in\s+)?parallel${AMPLIFIER}`), ([, a, b]) => `${a}|| ${b}`],
  // "with" an amplifier; in series or in parallel with something it is said already.
  [/(?<!\b(?:series|parallel|ser|par)\s*)\bwith\b/g, () => 'on'],
]
