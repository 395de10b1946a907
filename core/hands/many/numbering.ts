/** The last number of a label is what counts on: "C01" → prefix "C", 1 of two figures, nothing behind. */
const NUMBER = /^(.*?)(\d+)(\D*)$/

/**
 * Labels that count on from a first one, its width kept: "C01" gives C01, C02 …; "2a" gives 2a, 3a; a word counts from 1 behind it,
 * a single letter goes on in the alphabet.
 */
export function countedOn(first: string, count: number): string[] {
  const label = first.trim()
  const found = NUMBER.exec(label)
  if (found) {
    const [, before, digits, behind] = found as unknown as [string, string, string, string]
    return Array.from({ length: count }, (_, k) => `${before}${String(Number(digits) + k).padStart(digits.length, '0')}${behind}`)
  }
  if (/^[A-Za-z]$/.test(label) && label.charCodeAt(0) + count - 1 <= (label < 'a' ? 90 : 122)) {
    return Array.from({ length: count }, (_, k) => String.fromCharCode(label.charCodeAt(0) + k))
  }
  return Array.from({ length: count }, (_, k) => `${label} ${k + 1}`)
}
