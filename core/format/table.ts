import type { Branch, SpeakerLoad } from '#core/job/schema'
import { branchSchema } from '#core/job/sections/wiring/schema'
import { USUAL_TAPS_W, type NewId } from '#core/hands/intents'
import { readCable, type Cable } from '#core/quantity/cable'
import { InputError } from '#core/quantity/inputError'
import { readQuantity } from '#core/quantity/read'
import { writeNumber } from '#core/quantity/write'
import type { TABLE_COLUMNS } from './tableOut'

/** A tap that has a column of its own is watts, also where it does not say so. */
type Column = typeof TABLE_COLUMNS[number] | 'tap'

/** Other names that people give these columns. */
const NAMED: readonly (readonly [Column, RegExp])[] = [
  ['label', /^(label|no\.?|nr\.?|number|#|id|speaker)$/], ['what it is', /^(what( it is)?|name|model|type|kind|description|unit)$/], ['wired as', /^(wired( as)?|load|impedance|ohms?|z|nominal)$/],
  ['tap', /^(tap|tapped|tap,? ?\(?w(atts?)?\)?|tap set(ting)?|set to)$/], ['taps, W', /^(taps,? ?\(?w?\)?|its taps)$/], ['rating', /^(rating|rated|continuous|power|watts)$/], ['driver', /^(driver|coil|driver ohms?)$/],
  ['length', /^(length|len|distance|m|metres|meters|ft|feet|run)$/], ['cable', /^(cable|wire|gauge|size|awg|mm2|mm²)$/],
]

/** Whether a text is a table at all: some column, or some line of several. */
export function isTable(text: string): boolean {
  return /\t/.test(text) || /\n/.test(text.trim())
}

/** A row of a table as it was read: the speaker, or what is wrong with it. */
export interface ReadRow {
  /** Counted as a spreadsheet does, names of columns included. */
  row: number
  text: string
  branch: Branch | null
  problem: InputError | null
}

/**
 * Every row of a table as far as it can be read. Columns go by their names; without names by what stands in them. A tap that does not say its volts is for
 * `lineV`; a length that does not say its cable is of `cable`.
 * @throws InputError where there is no row at all
 */
export function lookAtTable(text: string, usual: { lineV: number, cable: Cable | null }, newId: NewId): ReadRow[] {
  const rows = text.split(/\r?\n/).map(line => line.split(/\t|;/).map(cell => cell.trim())).filter(cells => cells.some(cell => cell !== ''))
  if (rows.length === 0) throw new InputError('There is nothing in it.', 0, [])
  const named = namesOf(rows[0]!)
  const body = named ? rows.slice(1) : rows
  if (body.length === 0) throw new InputError('It has column names and no rows.', 0, [])
  return body.map((cells, k) => {
    const found = named ? null : unnamed(cells)
    const at = (column: Column) => (found ? found.get(column) : cells[named!.indexOf(column)]) ?? ''
    const row = named ? k + 2 : k + 1
    const seen = { row, text: cells.join('  ').trim() }
    try {
      return { ...seen, branch: branchOf(at, k, row, usual, newId), problem: null }
    }
    catch (problem) {
      if (!(problem instanceof InputError)) throw problem
      return { ...seen, branch: null, problem }
    }
  })
}

/** A table of which rows cannot be read: all of them with what is wrong, and those that can. */
export class TableError extends InputError {
  override name = 'TableError'
  constructor(readonly rows: readonly ReadRow[]) {
    const bad = rows.flatMap(({ problem }) => problem ?? [])
    const more = bad.length - 1
    super(`${bad[0]!.message}${more > 0 ? ` ${more} more ${more === 1 ? 'row' : 'rows'} cannot be read either.` : ''}`, 0, bad[0]!.expected)
  }
}

/**
 * The speakers of a table.
 * @throws TableError that says which rows and columns cannot be read, all of them; InputError where there are none. Nothing is taken in part.
 */
export function readTable(text: string, usual: { lineV: number, cable: Cable | null }, newId: NewId): Branch[] {
  const rows = lookAtTable(text, usual, newId)
  if (rows.some(({ problem }) => problem !== null)) throw new TableError(rows)
  return rows.flatMap(({ branch }) => branch ?? [])
}

/** What each column of a first row is called; null where it names none by which a speaker could be known. */
function namesOf(cells: readonly string[]): (Column | null)[] | null {
  const names = cells.map(cell => NAMED.find(([, pattern]) => pattern.test(cell.toLowerCase()))?.[0] ?? null)
  return names.includes('wired as') || names.includes('tap') ? names : null
}

const LOAD = /^(off|[\d.,]+(\s*(\+|\|\|)\s*[\d.,]+)*\s*(w|watts?|ohms?|Ω|r)\b.*|[\d.,]+\s*Ω.*)$/i
const LENGTH = /^[\d.,]+\s*(m|metres?|meters?|ft|feet|')$/i
const CABLE = /(awg|mm2|mm²)/i

function unnamed(cells: readonly string[]): Map<Column, string> {
  const found = new Map<Column, string>()
  const put = (column: Column, cell: string) => { if (!found.has(column)) found.set(column, cell) }
  cells.filter(cell => cell !== '').forEach((cell, k) => {
    if (CABLE.test(cell)) put('cable', cell)
    else if (LENGTH.test(cell)) put('length', cell)
    else if (LOAD.test(cell)) put(found.has('wired as') ? 'rating' : 'wired as', cell)
    else put(k === 0 ? 'label' : 'what it is', cell)
  })
  return found
}

function branchOf(at: (column: Column) => string, k: number, row: number, usual: { lineV: number, cable: Cable | null }, newId: NewId): Branch {
  const read = <T>(column: Column, reader: (cell: string) => T): T | null => {
    const cell = at(column)
    if (cell === '') return null
    try {
      return reader(cell)
    }
    catch (error) {
      if (!(error instanceof InputError)) throw error
      throw new InputError(`Row ${row}, ${column}: ${error.message}`, 0, error.expected)
    }
  }
  const tap = read('tap', cell => loadOf(/^[\d.,]+$/.test(cell) ? `${cell} W` : cell, usual.lineV))
  const load = tap ?? read('wired as', cell => loadOf(cell, usual.lineV))
  if (!load) throw new InputError(`Row ${row}: how it is wired is not said.`, 0, ['10 W', '8 ohm'])
  const taps = read('taps, W', cell => cell.split(/[\s,]+/).map(w => readQuantity('power', w)))
  if (load.kind === 'tap' && taps && load.tapW !== 0 && !taps.includes(load.tapW)) {
    throw new InputError(`Row ${row}, tap: its taps are ${taps.map(w => writeNumber(w, 6)).join(', ')} W, and ${writeNumber(load.tapW, 6)} W is none of them.`, 0, [])
  }
  const lengthM = read('length', cell => readQuantity('length', /^[\d.,]+$/.test(cell) ? `${cell} m` : cell))
  const cable = read('cable', readCable)
  const branch: Branch = {
    lead: lengthM === null ? null : { lengthM, cable: cable ?? usual.cable },
    node: {
      kind: 'speaker', id: newId(), label: at('label') || String(k + 1).padStart(2, '0'), name: at('what it is').slice(0, 120),
      load: load.kind === 'tap' && taps ? { ...load, tapsW: taps } : load, continuousW: read('rating', cell => readQuantity('power', cell)),
      driverOhm: read('driver', cell => readQuantity('resistance', cell)), kindId: null, zoneId: null,
    },
  }
  const checked = branchSchema.safeParse(branch)
  if (!checked.success) throw new InputError(`Row ${row}: ${checked.error.issues[0]!.path.at(-1)?.toString() ?? 'it'} ${checked.error.issues[0]!.message}.`, 0, [])
  return branch
}

function loadOf(cell: string, lineV: number): SpeakerLoad {
  const [first, second] = cell.split(/\s*(?:\bat\b|@)\s*/i)
  const ratedV = second ? voltsOf(second) : lineV
  if (/^off$/i.test(first!)) return { kind: 'tap', tapW: 0, ratedV, tapsW: [...USUAL_TAPS_W], insertionDb: null, tapMeans: null }
  const members = first!.split(/\s*(?:\+|\|\||∥)\s*/)
  if (members.length > 1) {
    const unit = /[a-zΩ]+$/i.exec(first!)?.[0] ?? ''
    return {
      kind: 'members', joined: first!.includes('+') ? 'series' : 'parallel',
      members: members.map(ohms => ({ kind: 'nominal', nominalOhm: readQuantity('resistance', /\d$/.test(ohms) ? `${ohms} ${unit}` : ohms) })),
    }
  }
  if (!/w(atts?)?$/i.test(first!)) return { kind: 'nominal', nominalOhm: readQuantity('resistance', first!) }
  const tapW = readQuantity('power', first!)
  return { kind: 'tap', tapW, ratedV, tapsW: [...new Set([...USUAL_TAPS_W, tapW])].sort((a, b) => a - b), insertionDb: null, tapMeans: null }
}

function voltsOf(text: string): number {
  const volts = Number(/^([\d.]+)\s*v(olts?)?$/i.exec(text)?.[1] ?? NaN)
  if (!(volts >= 1 && volts <= 1000)) throw new InputError(`“${text}” are no volts of a line.`, 0, ['70 V', '100 V'])
  return volts
}
