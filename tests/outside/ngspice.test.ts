import { runs } from '#core/testing/runs'
import { expect, test } from '@jest/globals'
import { driveInto, type SolidStateRating } from '#core/amplifier/index'
import { asCurve } from '#core/network/element'
import { compile } from '#core/network/compile'
import { solve } from '#core/network/solve'
import { flowAt, makeSolver } from '#core/network/solver'
import { writeSpice } from '#core/format/spice'
import { randomTree, seeded } from '#core/testing/trees'
import { across, runNgspice } from './ngspice'

const HEAD_V = 10
const RELATIVE = 1e-6
/** Below a hundred nanovolts beside ten volts neither program's last digits mean anything. */
const ABSOLUTE_V = 1e-7

/**
 * The whole solver against ngspice, the circuit simulator of Debian: 120 seeded trees with every kind of node, controls and
 * transformers, capacitors and coils in the way, measured curves, cabinets and single coils among them, 1 to 300 speakers, 20 Hz to 20 kHz;
 * every speaker's complex voltage and the current into the head.
 */
test('random trees against ngspice', () => {
  let compared = 0
  for (let seed = 1; seed <= runs(120); seed++) {
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

/**
 * Two channels joined, as sources of what one channel gives into the load that it sees: the simulator says that each sees half of it bridged
 * (one upside down), twice of it side by side (behind equal resistors that let them share), and what reaches the load.
 */
test.each([['bridged', 16], ['bridged', 8], ['bridged', 5], ['parallel', 4], ['parallel', 2], ['parallel', 3]] as const)('%s into %d Ω against ngspice', (mode, loadOhm) => {
  const rating: SolidStateRating = { kind: 'solid-state', points: [{ loadOhm: 8, powerW: 180 }, { loadOhm: 4, powerW: 300 }], floorOhm: 2, mode: 'single', bridgedFloorOhm: null }
  const eachOhm = mode === 'bridged' ? loadOhm / 2 : 2 * loadOhm
  const { volts } = driveInto(rating, eachOhm)!
  const shared = 1e-7
  const parts = mode === 'bridged'
    ? [`V1 n1 0 DC 0 AC ${volts}`, `V2 n2 0 DC 0 AC ${-volts}`, `R1 n1 n2 ${loadOhm}`]
    : [`V1 a 0 DC 0 AC ${volts}`, `V2 b 0 DC 0 AC ${volts}`, `R2 a n1 ${shared}`, `R3 b n1 ${shared}`, `R1 n1 0 ${loadOhm}`, 'Vn n2 0 DC 0 AC 0']
  const text = ['* joined channels', ...parts, '.ac lin 1 1000 1000', '.end', ''].join('\n')
  const [row] = runNgspice({ text, nodes: new Map() }, ['(v(n1)-v(n2))', mode === 'bridged' ? 'i(v1)' : '(i(v1)+i(v2))/2']).rows
  const [across, amps] = row!.values.map(v => Math.hypot(v.re, v.im))
  const drive = driveInto({ ...rating, mode }, loadOhm)!
  expect([volts / amps! / eachOhm, across! ** 2 / loadOhm / drive.powerW, across! / drive.volts]).toEqual([expect.closeTo(1, 6), expect.closeTo(1,
    6), expect.closeTo(1, 6)])
})
