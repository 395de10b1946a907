const PREFIXES = [
  { from: 1e6, prefix: 'M' },
  { from: 1e3, prefix: 'k' },
  { from: 1, prefix: '' },
  { from: 1e-3, prefix: 'm' },
] as const

/**
 * A number in plain digits with no more figures than can matter to a reader: `figures` significant ones, trailing zeros
 * dropped. Depends on its arguments alone (no locale): the same text on every machine. What lies the machine's last digits beside
 * a half is that half: 25 W / 0.8 reads 31.3 W by whatever way it was worked out.
 */
export function writeNumber(value: number, figures = 3): string {
  if (value === 0) return '0'
  const places = Math.min(12, Math.max(0, figures - 1 - Math.floor(Math.log10(Math.abs(value)))))
  const text = Number(value.toPrecision(12)).toFixed(places)
  return text.includes('.') ? text.replace(/\.?0+$/, '') : text
}

/** A quantity with its unit and, for Ω from a kilohm and W from ten kilowatts up, its prefix: "26.5 Ω", "2.2 kΩ", "188.7 W". */
export function writeQuantity(value: number, unit: 'Ω' | 'W' | 'V' | 'A' | 'm' | 'Hz', figures = 3): string {
  const size = Math.abs(value)
  const usesPrefix = unit === 'Ω' || unit === 'Hz' ? size >= 1000 : unit === 'W' ? size >= 10_000 : false
  if (!usesPrefix) return `${writeNumber(value, size >= 100 ? Math.max(figures, 4) : figures)} ${unit}`
  const { from, prefix } = PREFIXES.find(p => size >= p.from)!
  return `${writeNumber(value / from, figures)} ${prefix}${unit}`
}

/** A level difference, always signed by its sense of loss: "−0.75 dB". */
export function writeDb(db: number): string {
  const rounded = Math.round(db * 100) / 100
  return `${rounded < 0 ? '−' : ''}${Math.abs(rounded).toFixed(2)} dB`
}

/** "1 speaker", "12 speakers". */
export function countOf(count: number, one: string, several = `${one}s`): string {
  return `${count} ${count === 1 ? one : several}`
}

/** A figure as it is kept, without the last bits of arithmetic: what is typed is read again as the same. */
export function writeExact(value: number): string {
  return String(Number(value.toPrecision(7)))
}
