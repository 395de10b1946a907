import { runs } from '#core/testing/runs'
import { expect, test } from '@jest/globals'
import { driveInto, type SolidStateRating } from '#core/amplifier/index'
import { asCurve } from '#core/network/element'
import { compile } from '#core/network/compile'
import { solve } from '#core/network/solve'
import { flowAt, makeSolver } from '#core/network/solver'
import { FAULTS } from '#core/faults/index'
import { writeSpice } from '#core/format/spice'
import type { Control, Output, Speaker } from '#core/job/schema'
import { speakersOf } from '#core/job/tree'
import { solveLine } from '#core/network/line'
import { jobOf } from '#core/testing/jobs'
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

/**
 * What each kind of fault makes of a line, every size of it: its head against ngspice, on a tap line with a control, and on plain ones with a unit of two
 * drivers and a cabinet.
 */
test('every kind of fault, as a changed network, against ngspice', () => {
  const lead = { cable: { awg: 16 as const }, lengthM: 9 }
  const taps = jobOf('4 x 20 W + 3 x 5 W on 70 V 240 W').amplifiers[0]!.outputs[0]!
  const [first, ...rest] = taps.wiring.children.map(b => ({ ...b, lead }))
  const wall: Control = { kind: 'control', label: 'C1', name: '', from: null, setDb: 3, stepsDb: [], ratingW: 10, lineV: 70.71, insertionDb: 0.5 }
  const cabinet = { jack: 'A', switchTo: '', plays: 'all' as const, load: { kind: 'nominal' as const, nominalOhm: 4 } }
  const plain = jobOf('dvc 4 parallel || 8 || (8 + 8) on valve 50 W at 4/8, tap 4').amplifiers[0]!.outputs[0]!
  const lines: Output[] = [
    { ...taps, wiring: { ...taps.wiring, children: [first!, ...rest.slice(0, 3), { lead, node: { kind: 'star', id: 'wall', children: rest.slice(3), through: wall } }] } },
    { ...plain, wiring: { ...plain.wiring, children: plain.wiring.children.map((b, k) => ({ lead, node: k === 1 ? { ...b.node as Speaker, load: { kind: 'cabinet' as const, at: 0, positions: [cabinet, { ...cabinet, jack: 'B', load: { kind: 'nominal' as const, nominalOhm: 16 } }] } } : b.node })) } },
  ]
  const seen = new Set<string>()
  for (const output of lines) {
    const speakers = speakersOf(output.wiring)
    for (const definition of FAULTS) {
      const candidates = definition.candidates(output, speakers, [{ ...lines[0]!, id: 'other' }])
      // Of each place and size enough that none of a kind is left out.
      for (const fault of candidates.filter((_, k) => k % Math.ceil(candidates.length / 6) === 0)) {
        const tree = definition.change(output.wiring, fault, [{ ...lines[0]!, id: 'other' }])
        const ours = solveLine({ lead: null, node: tree }, asCurve, 1000, HEAD_V).head
        const { rows } = runNgspice(writeSpice({ lead: null, node: tree }, fault.kind, { headV: HEAD_V, fromHz: 1000, toHz: 1000, perDecade: 1 }), ['i(v1)'])
        const [amps] = rows[0]!.values
        const theirs = HEAD_V / Math.hypot(amps!.re, amps!.im)
        const name = `${fault.kind} ${fault.nodeId ?? ''} ${fault.amount ?? ''}`
        if (ours.state === 'finite') expect([name, Math.abs(ours.ohm / theirs - 1) < 1e-5]).toEqual([name, true])
        else expect([name, ours.state, ours.state === 'open' ? theirs > 1e6 : theirs < 1e-3]).toEqual([name, ours.state, true])
        seen.add(fault.kind)
      }
    }
  }
  // None of these two lines loses so much in its cable that another is told from it, and a whole tap's step is not everywhere.
  expect(FAULTS.map(f => f.kind).filter(k => !seen.has(k))).toEqual(NOT_HERE)
}, 120_000)
const NOT_HERE: string[] = []
