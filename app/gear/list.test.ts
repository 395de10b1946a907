import { expect, test } from '@jest/globals'
import { unstatedModel, type GearKind } from '#core/gear/models'
import { LIST_KEYS, type GearRow } from '#core/gear/protocol'
import { cablePrices, controlFor } from './prices'
import { cellText, differences, listColumns, offered, shownColumns, shownRows, USUAL_ASK, wordsInSteps, type Asked } from './list'

const rowOf = (kind: GearKind, stated: { name: string, [key: string]: unknown }, isRetired = false): GearRow => {
  const body = { ...unstatedModel(kind, 'x'), ...stated } as unknown as Record<string, unknown>
  return { id: stated.name, version: 1, isRetired, usedIn: 0, values: LIST_KEYS[kind].map(key => body[key]) }
}
const rows = [
  rowOf('speaker', { name: 'Box 10', build: 'box', nominalOhm: 8, continuousW: 100, price: 90 }), rowOf('speaker', { name: 'Box 9', build: 'box', nominalOhm: 4, continuousW: 60 }),
  rowOf('speaker', { name: 'Ceiling', build: 'ceiling-can', nominalOhm: 8, scales: [{ lineV: 100, tapsW: [5, 12.5] }], price: 20 }), rowOf('speaker', { name: 'Old horn', build: 'horn' }, true),
]
test.each<[string, Partial<Asked>, string]>([
  ['nothing asked: all but what is retired, as it comes', {}, 'Box 10, Box 9, Ceiling'],
  ['retired too', { withRetired: true }, 'Box 10, Box 9, Ceiling, Old horn'],
  ['a word', { search: 'box' }, 'Box 10, Box 9'],
  ['two words, each somewhere', { search: '8 Ω can' }, 'Ceiling'],
  ['a tap', { search: '12.5' }, 'Ceiling'],
  ['a built one by words', { search: 'ceiling can' }, 'Ceiling'],
  ['no such', { search: 'lamp' }, ''],
  ['the end of a word is none', { search: 'ox' }, ''],
  ['nor the end of a number', { search: '0' }, ''],
  ['of one build', { choice: 'box' }, 'Box 10, Box 9'],
  ['by a figure', { sort: 'continuousW' }, 'Box 9, Box 10, Ceiling'], ['down, what is not stated still last', { sort: 'continuousW', isDown: true }, 'Box 10, Box 9, Ceiling'], ['by price', { sort: 'price' }, 'Ceiling, Box 10, Box 9'],
  ['names down: numbers in them count as numbers', { sort: 'name', isDown: true }, 'Ceiling, Box 10, Box 9'], ['by build', { sort: 'build', isDown: true }, 'Ceiling, Box 10, Box 9'],
])('%s', (_, asked, names) => expect(shownRows('speaker', rows, { ...USUAL_ASK, ...asked }).map(r => r.id).join(', ')).toBe(names))

test('a word of the name before one of the figures, a whole word before the beginning of a longer one; what the job has only among equals', () => {
  const row = (id: string, ...values: unknown[]) => ({ id, isRetired: false, version: 1, values }) as never
  const keys = listColumns('control').map(c => c.column.key)
  const control = (id: string, name: string, ratingW: number, lineV: number) => row(id, ...keys.map(key => key === 'name' ? name : key === 'ratingW' ? ratingW : key === 'lineV' ? lineV : null))
  const all = [control('a', 'Wall 35', 700, 100), control('b', 'Wall large', 70, 100), control('c', 'Subway 7', 20, 100), control('d', 'Dial sub', 20, 100)]
  const first = (search: string, used: string[] = []) => offered('control', all, search, { used, recent: [] }).map(r => r.id)
  expect([first('70', ['a']), first('sub', ['c']), first('wall', ['b'])]).toEqual([['b', 'a'], ['d', 'c'], ['b', 'a']])
})

test('offered for a few words: what the job has, then the last ones, then by name, eight at most', () => {
  const ids = (search: string, used: string[] = [], recent: string[] = [], most?: number) => offered('speaker', rows, search, { used, recent }, most).map(r => r.id)
  expect([ids(''), ids('', ['Ceiling'], ['Box 9', 'Old horn']), ids('box', ['Ceiling'], ['Box 9']), ids('', [], [], 1)]).toEqual([['Box 10', 'Box 9', 'Ceiling'], ['Ceiling', 'Box 9', 'Box 10'], ['Box 9', 'Box 10'], ['Box 10']])
})

test('words made ahead, in steps, are those that are searched', () => {
  const many = Array.from({ length: 700 }, (_, k) => rowOf('speaker', { name: `Model ${k}` }))
  expect([[...wordsInSteps('speaker', many)].length, shownRows('speaker', many, { ...USUAL_ASK, search: 'model 699' }).map(r => r.id)]).toEqual([2, ['Model 699']])
})

test('what was asked leaves the rows as they are', () => {
  const before = [...rows]
  shownRows('speaker', rows, { ...USUAL_ASK, sort: 'price' })
  expect(rows).toEqual(before)
})
test('cells are read, not parsed: four figures, taps in words, nothing for what is not stated', () => {
  const columns = listColumns('speaker')
  expect(columns.map(c => cellText(c, rows[2]!.values[c.at]))).toEqual(['Ceiling', 'ceiling can', '8', '', '', '', '', '100 V: 5 12.5', '20', ''])
  expect(cellText(columns[2]!, 7.123456)).toBe('7.123')
})
test('side by side: only what differs', () => {
  const of = (continuousW: number, price: number | null) => ({ ...unstatedModel('speaker', 'x'), continuousW, price })
  expect(differences('speaker', [of(20, null), of(30, null), of(20, null)]).map(d => [d.column.key, d.says])).toEqual([['continuousW', ['20', '30', '20']]])
})

test('what a metre of a size costs, and the cheapest control that carries so much on that line', () => {
  const row = (values: unknown[], isRetired = false) => ({ id: String(values), version: 1, isRetired, usedIn: 0, values })
  const prices = cablePrices([row(['A', { awg: 16 }, [], '', 1.2]), row(['B', { awg: 16 }, [], '', 1.1]), row(['old', { awg: 16 }, [], '', 0.2], true), row(['C', { areaMm2: 1.5 }, [], '', null])])
  expect([...prices]).toEqual([['16 AWG', { price: 1.1, name: 'B' }]])
  const controls = [row(['C10', 10, [70.71], 0.4, false, 22]), row(['C35', 35, [70.71, 100], 0.4, false, 31]), row(['dear', 35, [70.71], 0.4, true, 44]), row(['free', 50, [70.71], 0.4, false, null]), row(['gone', 90, [70.71], 0.4, false, 1], true)]
  expect([controlFor(controls, 10, 70.71)?.name, controlFor(controls, 10.1, 70.71)?.name, controlFor(controls, 5, 100)?.name, controlFor(controls, 36, 70.71), controlFor(controls, 5, null)?.name]).toEqual(['C10', 'C35', 'C35', null, 'C10'])
})

test.each<[number, string[] | null, string]>([
  [320, null, 'name'], [390, null, 'name'], [800, null, 'name build nominalOhm continuousW believedW sensitivityDb'], [1180, null, 'name build nominalOhm continuousW believedW sensitivityDb coverageDeg scales price'],
  [2000, null, 'name build nominalOhm continuousW believedW sensitivityDb coverageDeg scales price purpose'], [390, ['price', 'scales'], 'name scales price'], [390, [], 'name'],
])('%d px, chosen %j: the columns %s', (px, chosen, keys) => expect(shownColumns(listColumns('speaker'), px, chosen).map(c => c.column.key).join(' ')).toBe(keys))
