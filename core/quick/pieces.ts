/** One piece of a typed line as it is shown: a number, a word, a sign, or space. `at` and `end` count characters of the text. */
export interface Piece { text: string, at: number, end: number, connects: boolean }

const PIECE = /\s+|\d+(?:[.,]\d+)?|\p{L}+|\|\||\/\/|./gsu
const CONNECTING = new Set(['||', '//', '∥', '+', 'on', 'into', 'parallel', 'par', 'series', 'ser'])

/** Cuts a line into pieces for showing it; nothing is left out. */
export function piecesOf(text: string): Piece[] {
  return [...text.matchAll(PIECE)]
    .map(({ 0: piece, index }) => ({ text: piece, at: index, end: index + piece.length, connects: CONNECTING.has(piece.toLowerCase()) }))
}
