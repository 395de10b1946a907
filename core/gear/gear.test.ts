import { describe, expect, test } from '@jest/globals'
import { parse } from 'csv-parse/sync'
import { randomModel } from '#core/testing/gear'
import { seeded } from '#core/testing/trees'
import { readCell, unitInHead, writeCell, voltsInHead } from './cells'
import { guessMapping, headOf, readGear, readTable, writeBadRows, writeCsv } from './csv'
import { columnsOf, GEAR_KINDS, MODEL_SCHEMAS, unstatedModel, type GearKind } from './models'

const column = (kind: GearKind, key: string) => columnsOf(kind).find(c => c.key === key)!
const readAll = (kind: GearKind, text: string) => {
  const table = readTable(text)
  return readGear(kind, table, guessMapping(kind, table.heads))
}

describe.each(GEAR_KINDS)('%s', (kind) => {
  test('a model of which nothing is stated is one', () => expect(MODEL_SCHEMAS[kind].safeParse(unstatedModel(kind, 'x')).success).toBe(true))

  test('200 random models go out and come in the same; an independent parser reads the same cells, none of which runs', () => {
    const chance = seeded(kind.length)
    const models = Array.from({ length: 200 }, () => randomModel(chance, kind))
    for (const model of models) expect(MODEL_SCHEMAS[kind].safeParse(model)).toEqual({ success: true, data: model })
    const text = writeCsv(kind, models)
    expect(readAll(kind, text)).toEqual({ good: models.map((model, k) => ({ row: k + 2, model })), bad: [] })
    // csv-parse, RFC 4180: another hand's reading of the same text.
    const cells = parse(text, { relax_column_count: false })
    expect(cells).toHaveLength(201)
    expect(cells[0]!.map((h: string) => h.replace(/^'/, ''))).toEqual(columnsOf(kind).map(headOf))
    for (const row of cells) for (const cell of row) expect(cell).not.toMatch(/^[=+\-@\t\r\n＝＋－＠]/)
  })

  test('of one row and of many, whatever parts the cells, with a last line end and without: the same comes in', () => {
    const chance = seeded(7 * kind.length)
    for (const count of [1, 1, 1, 2, 7, 40]) {
      const models = Array.from({ length: count }, () => randomModel(chance, kind))
      const cells = parse(writeCsv(kind, models)) as string[][]
      for (const delimiter of [',', ';', '\t', '|']) {
        // Another program writes it: quotes where RFC 4180 wants them.
        const quoted = (cell: string) => /["\r\n]/.test(cell) || cell.includes(delimiter) ? `"${cell.replaceAll('"', '""')}"` : cell
        const text = cells.map(row => row.map(quoted).join(delimiter)).join('\n')
        for (const end of ['', '\n', '\r\n\r\n']) {
          expect([delimiter, end, readAll(kind, text + end)]).toEqual([delimiter, end, { good: models.map((model, k) => ({ row: k + 2, model })), bad: [] }])
        }
      }
    }
  })

  test('every field writes what it reads, and has a name of its own', () => {
    expect(new Set(columnsOf(kind).map(headOf)).size).toBe(columnsOf(kind).length)
    expect(guessMapping(kind, columnsOf(kind).map(headOf))).toEqual(columnsOf(kind).map(c => c.key))
  })
})

test.each<[GearKind, string, string, string, unknown]>([
  ['speaker', 'massKg', '2,2 lb', '', 0.997903214], ['speaker', 'massKg', '850 g', '', 0.85], ['speaker', 'massKg', '5', 'lb', 2.26796185], ['speaker', 'massKg', '5 kg', 'lb', 5],
  ['speaker', 'frameMm', '8"', '', 203.2], ['speaker', 'frameMm', '16.5 cm', '', 165], ['speaker', 'lowHz', '1.2 kHz', '', 1200], ['speaker', 'continuousW', '0.5 kW', '', 500], ['speaker', 'nominalOhm', '8 ohms', '', 8],
  ['speaker', 'sensitivityDb', '89 dB SPL', '', 89], ['speaker', 'coverageDeg', '90 deg', '', 90], ['speaker', 'price', '49,90', '', 49.9], ['speaker', 'price', '', '', null], ['speaker', 'price', 'n/a', '', null],
  ['speaker', 'hasOff', 'Yes', '', true], ['speaker', 'hasOff', '0', '', false], ['speaker', 'build', 'Ceiling Can', '', 'ceiling-can'], ['speaker', 'sensitivityAt', '2.83V', '', '2.83 V'],
  ['speaker', 'scales', '70.71V: 5, 10, 20; 100 V = 10 20', '', [{ lineV: 70.71, tapsW: [5, 10, 20] }, { lineV: 100, tapsW: [10, 20] }]],
  ['speaker', 'scales', '100: 1,25 2,5', '', [{ lineV: 100, tapsW: [1.25, 2.5] }]],
  ['speaker', 'scales', '100: 5,10,20', '', [{ lineV: 100, tapsW: [5, 10, 20] }]],
  ['speaker', 'scales', '1.25;2.5;5;10', '70.71', [{ lineV: 70.71, tapsW: [1.25, 2.5, 5, 10] }]], ['speaker', 'scales', '5 W / 10 W', '100', [{ lineV: 100, tapsW: [5, 10] }]],
  ['speaker', 'scales', '100 V: 5 10', '70.71', [{ lineV: 100, tapsW: [5, 10] }]], ['speaker', 'scales', '', '100', []],
  ['speaker', 'leads', 'com: black; 5W: white/red', '', [{ tapW: null, base: 'black', stripe: '' }, { tapW: 5, base: 'white', stripe: 'red' }]],
  ['speaker', 'members', '4 + 4 ohm', '', { kind: 'members', joined: 'series', members: [{ kind: 'nominal', nominalOhm: 4 }, { kind: 'nominal', nominalOhm: 4 }] }],
  ['speaker', 'smallSignal', 'Re=5.6 Le=0.0005 Fs=45 Qms=4.2 Qes=0.48', '', { reOhm: 5.6, leH: 0.0005, fsHz: 45, qms: 4.2, qes: 0.48 }],
  ['amplifier', 'outputs', '4 x 400 W at 4 Ω, 300 W at 8 ohm, from 2 Ω; 240 W on 70 V', '', [{ count: 4, points: [{ loadOhm: 4, powerW: 400 }, { loadOhm: 8, powerW: 300 }], lines: [], floorOhm: 2, valve: null }, { count: 1, points: [], lines: [{ lineV: 70, powerW: 240 }], floorOhm: null, valve: null }]],
  ['amplifier', 'outputs', 'valve 50W at 4/8/16 ohm by Selector', '', [{ count: 1, points: [], lines: [], floorOhm: null, valve: { powerW: 50, tapsOhm: [4, 8, 16], chosenBy: 'selector' } }]],
  ['amplifier', 'inputs', '2 x mic/line over the others; music with the others; 3 x line', '', [{ count: 2, takes: ['microphone', 'line'], isOver: true }, { count: 1, takes: ['media'], isOver: false }, { count: 3, takes: ['line'], isOver: null }]],
  ['harness', 'ways', 'front left [1 2] = white, white/black; sub = violet, violet/black; out 3 [3+ COM]', '', [
    { name: 'front left', terminals: ['1', '2'], pair: [{ base: 'white', stripe: '' }, { base: 'white', stripe: 'black' }] }, { name: 'sub', terminals: null, pair: [{ base: 'violet', stripe: '' }, { base: 'violet', stripe: 'black' }] }, { name: 'out 3', terminals: ['3+', 'COM'], pair: null }]],
  ['cable', 'size', '16', 'awg', { awg: 16 }], ['cable', 'size', '1,5 mm²', '', { areaMm2: 1.5 }], ['cable', 'conductors', 'white/red, black', '', [{ base: 'white', stripe: 'red' }, { base: 'black', stripe: '' }]],
  ['control', 'stepsDb', '0 3 6,5', '', [0, 3, 6.5]], ['transformer', 'secondariesOhm', '4 8 16', '', [4, 8, 16]],
])('%s, %s: “%s” under a head of “%s”', (kind, key, text, headUnit, expected) => expect(readCell(column(kind, key), text, headUnit)).toEqual(expected))

test.each<[GearKind, string, string, RegExp]>([
  ['speaker', 'massKg', '5 stone', /“stone” is no unit of kg/],
  ['speaker', 'continuousW', 'lots', /“lots” is not a number of W/],
  ['speaker', 'continuousW', '0', /continuous rating must be at least 0.001 W/],
  ['speaker', 'price', '5 €', /no unit of this column, which has none/],
  ['speaker', 'build', 'round', /“round” is not one of ceiling-open, /],
  ['speaker', 'hasOff', 'perhaps', /not yes or no/],
  ['speaker', 'scales', '5 10 20', /not a dial with its taps/],
  ['speaker', 'smallSignal', 'Re 5 Le 0', /fs, Qms, Qes are missing/],
  ['speaker', 'members', '4', /must be two or more/],
  ['speaker', 'name', ' ', /name must not be empty/],
  ['speaker', 'leads', 'red', /not a lead/],
  ['amplifier', 'outputs', '2 x loud', /not what an output gives/],
  ['amplifier', 'outputs', '2 x from 4 Ω', /must have a rating/],
  ['amplifier', 'inputs', '2 x loudspeaker', /“loudspeaker” is not one of microphone, media, line/], ['amplifier', 'inputs', '2 x line/line', /names one twice/],
  ['harness', 'ways', 'left', /must have its conductors or its terminals/], ['harness', 'ways', 'left = white', /not two conductors, the plus first/], ['harness', 'ways', 'left [1 2 3]', /not two terminals/],
  ['harness', 'ways', 'left [1 2]; Left [3 4]', /names one way twice/], ['harness', 'ways', '', /needs at least one way/],
  ['cable', 'size', '16', /gauge or an area/], ['control', 'linesV', '70 much', /not a number/],
])('%s, %s: “%s” is refused', (kind, key, text, says) => expect(() => readCell(column(kind, key), text)).toThrow(says))

test.each<[string, string, string]>([
  ['Weight (lb)', 'kg', 'lb'],
  ['weight', 'kg', ''],
  ['depth in', 'mm', 'in'],
  ['in', 'mm', 'in'],
  ['Impedance [ohms]', 'Ω', 'ohms'],
  ['Power kW', 'W', 'kW'],
  ['price €', '', ''],
  ['W', 'W', 'W'],
])('the head “%s” names of %s the unit “%s”', (head, unit, spelled) =>
  expect(unitInHead(head, unit as never)).toBe(spelled))

test.each<[string, number | null]>([['Taps 70V (W)', 70.71], ['taps, 100 V', 100], ['Taps @ 25 volts', 25], ['70,7 V taps', 70.7], ['Taps (W)', null], ['V', null]])('the head “%s” is for a line of %s V', (head, volts) => expect(voltsInHead(head)).toBe(volts))

test('taps of two lines in two columns are two scales of one dial', () => {
  const table = readTable('Name\tTaps 70V (W)\tTaps 100V\tBuilt as\nA\t1.25;2.5;5;10\t2.5;5;10\tceiling can\nB\t\t5\tCeiling-Open\n')
  const mapping = guessMapping('speaker', table.heads)
  expect(mapping).toEqual(['name', 'scales', 'scales', 'build'])
  expect(readGear('speaker', table, mapping).good.map(({ model }) => [model.scales, model.build])).toEqual([
    [[{ lineV: 70.71, tapsW: [1.25, 2.5, 5, 10] }, { lineV: 100, tapsW: [2.5, 5, 10] }], 'ceiling-can'], [[{ lineV: 100, tapsW: [5] }], 'ceiling-open'],
  ])
})

test('heads of other people are guessed, none twice', () => {
  expect(guessMapping('speaker', ['Model', 'RMS power (W)', 'Peak Power', 'Impedance', 'SPL', 'Weight (lb)', 'Colour of box', 'Notes', 'List price', 'Taps', 'Model']))
    .toEqual(['name', 'continuousW', 'peakW', 'nominalOhm', 'sensitivityDb', 'massKg', null, 'remark', 'price', 'scales', null])
})

test('bad rows come back with their reasons, good ones whole, never half a row; mended they come in', () => {
  const text = 'Model;RMS (W);Weight (lb);Notes\nA;30;2;ok\nB;loud;heavy;=cmd\nC;20;;\n;5;1;no name\n\nD;10;1;"two\nlines"\n'
  const table = readTable(text)
  const read = readGear('speaker', table, guessMapping('speaker', table.heads))
  expect(read.good.map(({ row, model }) => [row, model.name, model.continuousW, model.massKg])).toEqual([[2, 'A', 30, 0.90718474], [4, 'C', 20, null], [7, 'D', 10, 0.45359237]])
  expect(read.bad).toEqual([
    { row: 3, column: 'RMS (W)', message: '“loud” is not a number of W.' }, { row: 3, column: 'Weight (lb)', message: '“heavy” is not a number of kg.' }, { row: 5, column: 'Model', message: 'name must not be empty.' },
  ])
  const back = writeBadRows(table, read.bad)
  expect(parse(back)[1]).toEqual(['B', 'loud', 'heavy', '\'=cmd', 'RMS (W): “loud” is not a number of W. Weight (lb): “heavy” is not a number of kg.'])
  const mended = readTable(back.replace('loud', '40').replace('heavy', '3').replace(/\r\n,5,/, '\r\nE,5,'))
  expect(readGear('speaker', mended, guessMapping('speaker', mended.heads)).good.map(g => [g.model.name, g.model.remark])).toEqual([['B', '=cmd'], ['E', 'no name']])
})

test.each(['\n=1+2', '＝1+2', '＠x', '\r\n-1'])('a cell that begins like %j is kept from a spreadsheet', (remark) => {
  const text = writeCsv('cable', [{ ...unstatedModel('cable', 'x'), remark }])
  const cells = parse(text) as string[][]
  expect(cells[1]!.at(columnsOf('cable').findIndex(c => c.key === 'remark'))).toMatch(/^'/)
  expect(readAll('cable', text).good[0]!.model.remark).toBe(remark.trim())
})

test.each<[string, RegExp]>([['', /nothing in it/], ['  \n', /nothing in it/], ['a,b\n', /no rows/], ['name,remark\nx,"open', /quotation mark is not closed/]])('%j is no table', (text, says) => expect(() => readTable(text)).toThrow(says))
test('without a name no row can be taken', () => expect(readAll('speaker', 'Colour,W\nred,5\n')).toEqual({ good: [], bad: [{ row: 2, column: 'name', message: 'No column is the name.' }] }))
test('nothing stated is an empty cell', () => expect([writeCell(column('speaker', 'price'), null), writeCell(column('speaker', 'hasOff'), false), writeCell(column('speaker', 'scales'), [])]).toEqual(['', 'no', '']))
