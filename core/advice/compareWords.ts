import { writeDb, writeQuantity } from '#core/quantity/write'
import type { VariantDiffers } from '#core/hands/variants'
import type { Compared, OrNone, VariantFigures } from './compare'

/** The table of a job and its variants, in words. */

/** `better`: which columns lead where one is plainly better; none where all are alike or one is not known. */
export interface CompareRow { says: string, note: string, cells: string[], better: number[] }

const UNKNOWN = 'not known'
const inWatts = (watts: number) => writeQuantity(watts, 'W')
const tenth = (value: number) => Math.round(value * 10) / 10

/** `best`: less is better. A row that no column has anything for is left out. */
interface RowOf { says: string, note?: string, of: (f: VariantFigures) => OrNone<{ cell: string | null, best: number | null }> }
function row<T extends object | number>(
  says: string, note: string, of: (f: VariantFigures) => OrNone<T>, cell: (value: T) => string | null, best: (value: T) => number | null,
): RowOf {
  return { says, note, of: (f) => {
    const value = of(f)
    if (value === null) return null
    return value === 'none' ? 'none' : { cell: cell(value as T), best: best(value as T) }
  } }
}

const ROWS: readonly RowOf[] = [
  row('lines', '', f => f, linesText, f => f.lines.unknown > 0 ? null : 1000 * f.lines.stop + f.lines.tight),
  row('watts drawn', 'all outputs at full', f => f.drawnW, inWatts, watts => Math.round(watts)),
  row('left by the reserve', 'on the tightest line', f => f.tightest, t => `${t.spareW < 0 ? `${inWatts(-t.spareW)} over` : inWatts(t.spareW)} on ${t.label}`, t => -Math.round(t.spareW)),
  row('against the target', 'in the quietest space', f => f.quietest, q => `${aboveText(tenth(q.overDb))}, ${q.name}`, q => Math.max(0, -tenth(q.overDb))),
  row('spread of level', 'in the least even space', f => f.widest, w => `±${tenth(w.spreadDb).toFixed(1)} dB, ${w.name}`, w => tenth(w.spreadDb)),
  row('lost in the wire', 'at the worst place', f => f.loss, l => `${writeDb(-l.lossDb)} at ${l.at}`, l => -tenth(l.lossDb)),
  row('price', 'speakers, amplifiers, controls, cable a tenth longer', f => f.price, priceText, p => p.unpriced + p.missing > 0 ? null : p.sum),
]
const aboveText = (db: number) => db === 0 ? 'just reached' : db < 0 ? `${(-db).toFixed(1)} dB short` : `${db.toFixed(1)} dB above`

export function compareRows(list: readonly Compared[]): CompareRow[] {
  return ROWS.flatMap(({ says, note, of }): CompareRow[] => {
    const values = list.map(c => of(c.figures))
    if (values.every(v => v === 'none')) return []
    const figures = values.map(v => v === null || v === 'none' ? null : v.best)
    const isTold = figures.every(f => f !== null) && new Set(figures).size > 1
    const leading = isTold ? Math.min(...figures as number[]) : NaN
    return [{ says, note: note ?? '', cells: values.map(v => v === 'none' ? 'none there' : v?.cell ?? UNKNOWN), better: figures.flatMap((f, k) => f === leading ? [k] : []) }]
  })
}

function linesText({ lines }: VariantFigures): string {
  const parts = ([['stop', 'must not be switched on'], ['tight', 'tight'], ['good', 'good'], ['unknown', UNKNOWN]] as const).filter(([grade]) => lines[grade] > 0)
  return parts.length === 0 ? 'none with speakers' : parts.map(([grade, says]) => `${lines[grade]} ${says}`).join(', ')
}

function priceText({ sum, unpriced, missing }: VariantFigures['price']): string | null {
  const lacks = [...unpriced > 0 ? [`${unpriced} without a price`] : [], ...missing > 0 ? [`${missing} ${missing === 1 ? 'length' : 'lengths'} not stated`] : []]
  if (lacks.length === 0) return sum.toFixed(2)
  return sum === 0 ? null : `more than ${sum.toFixed(2)}: ${lacks.join(', ')}`
}

const some = (count: number, one: string, many: string) => count === 0 ? [] : [`${count} ${count === 1 ? one : many}`]
/** "12 taps otherwise, 2 amplifiers more". */
export function differsWords(d: VariantDiffers): string {
  const parts = [
    ...some(d.amplifiers.more, 'amplifier more', 'amplifiers more'), ...some(d.amplifiers.less, 'amplifier less', 'amplifiers less'),
    ...some(d.speakers.more, 'speaker more', 'speakers more'), ...some(d.speakers.less, 'speaker less', 'speakers less'),
    ...some(d.taps, 'tap otherwise', 'taps otherwise'), ...some(d.cable, 'length of cable otherwise', 'lengths of cable otherwise'), ...some(d.elsewhere, 'speaker on another line', 'speakers on other lines'),
  ]
  return parts.length === 0 ? 'wired alike' : parts.join(', ')
}
