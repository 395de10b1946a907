import { expect, test } from '@jest/globals'
import { asCurve } from '#core/network/element'
import { compile } from '#core/network/compile'
import { flowAt, makeSolver, solve } from '#core/network/solve'
import { writeSpice } from '#core/format/spice'
import { randomTree, seeded } from '#core/testing/trees'
import { across, runNgspice } from './ngspice'

const HEAD_V = 10
const RELATIVE = 1e-6
/** Below a hundred nanovolts beside ten volts neither program's last digits mean anything. */
const ABSOLUTE_V = 1e-7

/**
 * The whole solver against ngspice, the circuit simulator of Debian: 200 seeded trees with every kind of node, controls and
 * transformers among them, 1 to 300 speakers, 20 Hz to 20 kHz; every speaker's complex voltage and the current into the head.
 */
test('200 random trees against ngspice', () => {
  let compared = 0
  for (let seed = 1; seed <= 200; seed++) {
    const chance = seeded(seed)
    const speakers = seed % 10 === 0 ? 100 + Math.floor(chance() * 201) : 1 + Math.floor(chance() ** 2 * 60)
    const tree = randomTree(chance, speakers, 0.3)
    const netlist = writeSpice(tree, `seed ${seed}`, { headV: HEAD_V, fromHz: 20, toHz: 20_000, perDecade: 3 })
    const ids = [...netlist.nodes.keys()]
    const { rows } = runNgspice(netlist, [...ids.map(id => across(netlist.nodes.get(id)!)), 'i(v1)'])
    expect(rows.length).toBe(10)

    const solver = makeSolver(compile(tree, asCurve))
    const places = ids.map(id => solver.circuit.ids.indexOf(id))
    for (const { frequencyHz, values } of rows) {
      const head = solve(solver, frequencyHz, HEAD_V)
      if (head.state !== 'finite') throw new Error(`seed ${seed}: head ${head.state}`)
      const near = (re: number, im: number, theirs: { re: number, im: number }, what: string) => {
        const off = Math.hypot(re - theirs.re, im - theirs.im)
        const allowed = ABSOLUTE_V + RELATIVE * Math.hypot(theirs.re, theirs.im)
        if (!(off <= allowed)) throw new Error(`seed ${seed}, ${frequencyHz} Hz, ${what}: ${re} ${im} here, ${theirs.re} ${theirs.im} there`)
        compared++
      }
      places.forEach((i, k) => {
        const { vRe, vIm } = flowAt(solver, i)
        near(vRe, vIm, values[k]!, ids[k]!)
      })
      // The simulator counts the current into the source.
      const { iRe, iIm } = flowAt(solver, 0)
      near(-iRe, -iIm, values.at(-1)!, 'head current')
    }
  }
  expect(compared).toBeGreaterThan(30_000)
}, 300_000)
