import { InputError } from '#core/quantity/inputError'
import type { WiringsAsked } from './finder'

const EXAMPLES = ['4 x 8', '2 x 8 ohm 100 W, 2 x 4', '2 x dvc 4'] as const
const PIECE = /^\s*(?:(\d+)\s*[x×*]\s*)?(?:(dvc|dual coil)\s*)?(\d+(?:[.,]\d+)?)\s*(?:ohms?|Ω)?\s*(?:(\d+(?:[.,]\d+)?)\s*(?:w|watts?))?\s*$/i

/**
 * Speakers to be wired as they are typed: "4 x 8", "2 x 8 ohm 100 W, 2 x 4"; of a dual coil each coil is one. All are to get the same.
 * @throws InputError at the piece that cannot be read
 */
export function readUnits(text: string): WiringsAsked['units'] {
  const units = new Map<string, { ohm: number, count: number, weight: number, ratingW: number | null }>()
  let at = 0
  // A comma between figures is a decimal one.
  for (const piece of text.split(/(?:,(?!\d)|;|\band\b|\+)/i)) {
    const read = PIECE.exec(piece)
    if (!read) throw new InputError(piece.trim() === '' ? 'A speaker is missing here.' : `“${piece.trim()}” is not a speaker.`, at + piece.length - piece.trimStart().length, EXAMPLES)
    const number = (k: number) => Number(read[k]!.replace(',', '.'))
    const count = (read[1] === undefined ? 1 : Number(read[1])) * (read[2] === undefined ? 1 : 2)
    const [ohm, ratingW] = [number(3), read[4] === undefined ? null : number(4)]
    if (count < 1 || count > 1000) throw new InputError('From one to a thousand of a kind.', at, EXAMPLES)
    if (ohm < 0.1 || ohm > 10_000) throw new InputError('A speaker has from 0.1 to 10,000 Ω.', at, EXAMPLES)
    const key = `${ohm} ${ratingW}`
    const before = units.get(key)
    units.set(key, { ohm, count: count + (before?.count ?? 0), weight: 1, ratingW })
    at += piece.length + 1
  }
  return [...units.values()]
}
