import { InputError } from '#core/quantity/inputError'
import { CATALOGUE_VERSION } from './catalogue'

/** The code of a rig: its level and its seed, and the version of the catalogue that its faults are drawn from. The same code is the same rig for everybody. */
export interface RigCode { level: number, seed: number }

/** Letters that nobody takes for another: no I, L, O, U. Source: base 32 as Crockford writes it. */
const LETTERS = '0123456789ABCDEFGHJKMNPQRSTVWXYZ'
export const MOST_SEED = 32 ** 5 - 1

/** "R4-07-0002A": catalogue 4, level 7, seed 74. */
export function writeCode({ level, seed }: RigCode): string {
  let left = seed
  let text = ''
  for (let k = 0; k < 5; k++) {
    text = LETTERS[left % 32]! + text
    left = Math.floor(left / 32)
  }
  return `R${CATALOGUE_VERSION}-${String(level).padStart(2, '0')}-${text}`
}

/** @throws InputError for what is no code, for one of another catalogue, for a level that is not there */
export function readCode(typed: string, levels: number): RigCode {
  const match = /^R(\d+)-(\d{1,2})-([0-9A-Z]{5})$/.exec(typed.trim().toUpperCase())
  if (!match) throw new InputError(`“${typed.slice(0, 40)}” is no code of a rig.`, 0, [writeCode({ level: 7, seed: 74 })])
  const [, version, level, text] = match
  if (Number(version) !== CATALOGUE_VERSION) throw new InputError(`This code is of catalogue ${version}; here is ${CATALOGUE_VERSION}: it would be another rig.`, 0, [])
  if (Number(level) < 1 || Number(level) > levels) throw new InputError(`There is no level ${level}: they go from 1 to ${levels}.`, 0, [])
  const digits = [...text!].map(letter => LETTERS.indexOf(letter))
  if (digits.includes(-1)) throw new InputError(`“${text}” has a letter that no code has (I, L, O, U).`, 0, [])
  return { level: Number(level), seed: digits.reduce((sum, digit) => 32 * sum + digit, 0) }
}
