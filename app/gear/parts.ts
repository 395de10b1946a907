import type { Column } from '#core/gear/models'

/** Parts of a model's sheet, in the order in which one looks: the first two stand open, the rest folds away with what it says. */
export const PARTS = ['name', 'electrical', 'taps', 'mechanics', 'price'] as const
export type Part = (typeof PARTS)[number]
export const PART_WORDS: Record<Part, string> = {
  name: 'Name and use', electrical: 'Electrical', taps: 'Taps and transformer', mechanics: 'Mechanics', price: 'Price and remarks',
}

const KEYS: Record<Exclude<Part, 'electrical'>, readonly string[]> = {
  name: ['name', 'build', 'made', 'purpose', 'size', 'ratingW', 'linesV'],
  taps: ['scales', 'tapMeans', 'insertionDb', 'throughOhm', 'hasOff', 'leads', 'secondariesOhm', 'stepsDb', 'priorityRelay'],
  mechanics: ['frameMm', 'cutOutMm', 'depthMm', 'magnetMm', 'holes', 'plusMark', 'massKg', 'rackUnits', 'conductors', 'listing'],
  price: ['price', 'remark'],
}
/** What belongs nowhere else is electrical: most of a sheet is. */
export const partOf = ({ key }: Pick<Column, 'key'>): Part => PARTS.find(part => part !== 'electrical' && KEYS[part].includes(key)) ?? 'electrical'

/** The parts that a kind of gear has, each with its columns in their order. */
export function partsOf(columns: readonly Column[]): { part: Part, columns: Column[] }[] {
  return PARTS.map(part => ({ part, columns: columns.filter(c => partOf(c) === part) })).filter(p => p.columns.length > 0)
}
