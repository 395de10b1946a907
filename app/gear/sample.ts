import { writeCsv } from '#core/gear/csv'
import { unstatedModel, type GearKind, type Models } from '#core/gear/models'

/** One invented model a kind: what a table with these columns may look like. */
const EXAMPLES: { [K in GearKind]: Partial<Models[K]> } = {
  speaker: {
    build: 'ceiling-can', purpose: 'Music and speech where people stay', nominalOhm: 8, continuousW: 40,
    sensitivityDb: 89, sensitivityAt: '1 W',
    coverageDeg: 110,
    scales: [{ lineV: 70.71, tapsW: [2.5, 5, 10, 20] }, { lineV: 100, tapsW: [5, 10, 20, 40] }],
    frameMm: 230, cutOutMm: 205, depthMm: 190, massKg: 2.6, price: 88,
  },
  amplifier: {
    outputs: [{ count: 2, points: [{ loadOhm: 4, powerW: 300 }, { loadOhm: 8, powerW: 180 }],
      lines: [{ lineV: 70.71, powerW: 300 }], floorOhm: 4, valve: null }],
    inputs: [{ count: 2, takes: ['microphone', 'line'], isOver: true }, { count: 1, takes: ['media'], isOver: false }], zones: 2,
    rackUnits: 2, price: 740,
  },
  cable: { size: { awg: 16 }, conductors: [{ base: 'red', stripe: '' }, { base: 'black', stripe: '' }], price: 0.9 },
  control: { ratingW: 35, linesV: [70.71, 100], stepsDb: [0, 3, 6, 9, 12], hasOff: true, price: 48 },
  transformer: { ratingW: 60, secondariesOhm: [4, 8], scales: [{ lineV: 70.71, tapsW: [15, 30, 60] }], price: 55 },
  harness: {
    purpose: 'A plug of four ways', ways: [
      { name: 'front left', terminals: ['1', '2'], pair: [{ base: 'white', stripe: '' }, { base: 'white', stripe: 'black' }] },
      { name: 'front right', terminals: null, pair: [{ base: 'grey', stripe: '' }, { base: 'grey', stripe: 'black' }] },
    ], price: 9,
  },
}

/** A table to fill in: every column that the library knows, and an invented row. */
export const sampleTable = (kind: GearKind): string => writeCsv(kind, [{ ...unstatedModel(kind, `An example ${kind}`), ...EXAMPLES[kind] } as never])
