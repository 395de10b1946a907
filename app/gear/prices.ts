import { writeCable, type Cable } from '#core/quantity/cable'
import { isSameVoltage } from '#core/quantity/tolerance'
import { LIST_KEYS, type GearRow } from '#core/gear/protocol'

/** The cheapest model of the library that will do. */
export interface Priced { price: number, name: string }

/** What a metre of each size costs: of its models that are offered, the cheapest with a price. */
export function cablePrices(rows: readonly GearRow[]): ReadonlyMap<string, Priced> {
  const [name, size, price] = (['name', 'size', 'price'] as const).map(key => LIST_KEYS.cable.indexOf(key)) as [number, number, number]
  const prices = new Map<string, Priced>()
  for (const { values, isRetired } of rows) {
    const asked = values[price]
    if (isRetired || typeof asked !== 'number') continue
    const key = writeCable(values[size] as Cable)
    if (asked < (prices.get(key)?.price ?? Infinity)) prices.set(key, { price: asked, name: String(values[name]) })
  }
  return prices
}

/** The cheapest control that carries so much on a line of that voltage; null where there is none with a price. */
export function controlFor(rows: readonly GearRow[], needsW: number, lineV: number | null): Priced | null {
  const [name, rating, lines, price] = (['name', 'ratingW', 'linesV', 'price'] as const).map(key => LIST_KEYS.control.indexOf(key)) as [number, number, number, number]
  return rows.reduce<Priced | null>((best, { values, isRetired }) => {
    const [ratingW, linesV, asked] = [values[rating], values[lines] as number[], values[price]]
    const fits = !isRetired && typeof ratingW === 'number' && ratingW >= needsW && typeof asked === 'number' && (lineV === null || linesV.some(v => isSameVoltage(v, lineV)))
    return fits && asked < (best?.price ?? Infinity) ? { price: asked, name: String(values[name]) } : best
  }, null)
}

/** What the models of a list cost, by their ids: those that have a price. */
export function modelPrices(kind: 'amplifier' | 'control' | 'transformer', rows: readonly GearRow[]): Record<string, number> {
  const at = LIST_KEYS[kind].indexOf('price')
  return Object.fromEntries(rows.flatMap(({ id, values }) => typeof values[at] === 'number' ? [[id, values[at]]] : []))
}
