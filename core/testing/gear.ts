import { choicesOf } from '#core/gear/cells'
import { columnsOf, unstatedModel, type Column, type GearKind, type Models } from '#core/gear/models'
import { SOURCE_KINDS } from '#core/gear/inputs'
import { CLASS5_OHM_PER_KM } from '#core/quantity/cable'
import type { Chance } from './trees'

/** Random models for tests: every field stated or not, with texts that a table may trip over. */

const TEXTS = ['plain', 'two words', 'a "quoted" one', 'semi; colon', 'comma, comma', '=1+2', '+x', '-x', '@x', '\'=x', '\'quote', 'line\nbreak', 'tab\tinside', '＝1', '＋x', 'a|b', 'Ωµ°²', '5 W: red', '1,5', 'n/a?', '0']
const oneOf = <T>(chance: Chance, list: readonly T[]): T => list[Math.floor(chance() * list.length)]!
const several = <T>(chance: Chance, most: number, make: () => T): T[] => Array.from({ length: Math.floor(chance() * (most + 1)) }, make)
const figure = (chance: Chance, least: number, most: number) => Number((least + chance() * (most - least)).toPrecision(oneOf(chance, [2, 4, 17])))

function randomValue(chance: Chance, column: Column): unknown {
  const ohm = () => figure(chance, 1, 100)
  const watt = () => figure(chance, 0.5, 500)
  const volt = () => oneOf(chance, [25, 70.71, 100])
  const point = () => ({ loadOhm: ohm(), powerW: watt() })
  const colour = () => ({ base: oneOf(chance, ['red', 'dark green', '=odd']), stripe: oneOf(chance, ['', 'white']) })
  const small = () => ({
    reOhm: ohm(), leH: figure(chance, 1e-7, 1e-2), fsHz: figure(chance, 20, 900), qms: figure(chance, 0.5, 9), qes: figure(chance, 0.2, 3),
  })
  const scales = () => several(chance, 3, () => ({ lineV: volt(), tapsW: [watt(), ...several(chance, 4, watt)] }))
  const least = { dB: 40, '°': 1, Hz: 1, mm: 1, kg: 0.01 } as Record<string, number>
  const most = { dB: 12, '°': 360, Hz: 1000, mm: 5000, kg: 500, V: 20, 'Ω': 1000, W: 5000 } as Record<string, number>
  switch (column.cell) {
    case 'text': return oneOf(chance, column.key === 'ratedBy' || column.key === 'holes' ? TEXTS.slice(0, 12) : TEXTS)
    case 'choice': return oneOf(chance, choicesOf(column.schema))
    case 'flag': return chance() < 0.5
    case 'numbers': return several(chance, 5, column.key === 'linesV' ? volt : () => figure(chance, 1, 100))
    case 'scales': return scales()
    case 'leads': return several(chance, 4, () => ({ tapW: chance() < 0.3 ? null : watt(), ...colour() }))
    case 'members': return {
      kind: 'members', joined: oneOf(chance, ['series', 'parallel']),
      members: [0, 1, ...several(chance, 2, () => 0)].map(() => chance() < 0.5 ? { kind: 'nominal', nominalOhm: ohm() } : { kind: 'motional', nominalOhm: ohm(), ...small() }),
    }
    case 'small-signal': return small()
    case 'curve': return Array.from({ length: 2 + Math.floor(chance() * 3) }, (_, k) => [20 * 3 ** k, ohm(), chance() < 0.3 ? null : (chance() < 0.5 ? -1 : 1) * figure(chance, 1, 80)])
    case 'positions': return [0, ...several(chance, 2, () => 0)].map(() => ({
      jack: oneOf(chance, ['16 Ω mono', 'left', '']), switchTo: oneOf(chance, ['', 'stereo']), plays: oneOf(chance, ['all', 'half']),
      load: chance() < 0.5 ? { kind: 'nominal', nominalOhm: ohm() } : { kind: 'members', joined: oneOf(chance, ['series', 'parallel']), members: [{ kind: 'nominal', nominalOhm: ohm() }, { kind: 'motional', nominalOhm: ohm(), ...small() }] },
    }))
    case 'outputs': return several(chance, 3, () => ({
      count: 1 + Math.floor(chance() * 8), points: [point(), ...several(chance, 2, point)],
      lines: several(chance, 2, () => ({ lineV: volt(), powerW: watt() })),
      floorOhm: chance() < 0.5 ? null : ohm(),
      valve: chance() < 0.7 ? null : { powerW: chance() < 0.3 ? null : watt(), tapsOhm: [4, 8, 16].slice(Math.floor(chance() * 3)), chosenBy: oneOf(chance, ['selector', 'sockets', null]) },
    }))
    case 'cable': return chance() < 0.5 ? { awg: 10 + Math.floor(chance() * 12) } : { areaMm2: oneOf(chance, [...CLASS5_OHM_PER_KM.keys()]) }
    case 'colours': return several(chance, 4, colour)
    case 'inputs': return several(chance, 3, () => ({ count: 1 + Math.floor(chance() * 6), takes: SOURCE_KINDS.slice(Math.floor(chance() * 3)), isOver: oneOf(chance, [true, false, null]) }))
    case 'ways': return [0, ...several(chance, 3, () => 0)].map((_, k) => {
      const [terminals, pair] = [chance() < 0.5 ? ['1+', oneOf(chance, ['1-', '-', 'COM'])] : null, chance() < 0.6 ? [colour(), colour()] : null]
      return { name: `${oneOf(chance, ['front', 'way', 'a, b', '7'])} ${k}`, terminals: pair === null ? terminals ?? ['x', 'y'] : terminals, pair }
    })
    case 'number': {
      if (column.key === 'zones') return 1 + Math.floor(chance() * 9)
      const from = column.key === 'sensitivityDb' ? 80 : column.unit === 'dB' ? 0.1 : least[column.unit] ?? 0.5
      return figure(chance, from, column.key === 'sensitivityDb' ? 120 : most[column.unit] ?? 60)
    }
  }
}

export function randomModel<K extends GearKind>(chance: Chance, kind: K): Models[K] {
  const stated = columnsOf(kind).flatMap(column => column.key === 'name' || column.cell === 'cable' || chance() < 0.6 ? [[column.key, randomValue(chance, column)] as const] : [])
  return { ...unstatedModel(kind, 'x'), ...Object.fromEntries(stated) }
}
