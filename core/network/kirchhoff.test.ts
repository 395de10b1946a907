import { expect, test } from '@jest/globals'
import { randomTree, seeded, type Chance } from '#core/testing/trees'
import { leadOhm } from './cable'
import { compile } from './compile'
import { asCurve, passingOf } from './element'
import { solve } from './solve'
import { flowAt, makeSolver } from './solver'
import { isGroup, type Child, type Through, type WiringNode } from './tree'

/**
 * Kirchhoff's laws themselves, on 300 random trees with controls and transformers, into which opens and shorts are put: no formula of
 * ours stands on both sides.
 */

const HEAD_V = 20

function withFaults(child: Child<WiringNode>, chance: Chance, share: number): Child<WiringNode> {
  const { node } = child
  if (isGroup(node)) {
    const { through } = node
    const off: Partial<Record<'through', Through>> = through && chance() < share ? { through: through.kind === 'control' ? { ...through, setDb: 'off' } : through.kind === 'transformer' ? { ...through, tapW: 0 } : through } : {}
    return { ...child, node: { ...node, ...off, children: node.children.map(c => withFaults(c, chance, share)) } }
  }
  if (chance() > share) return child
  return { ...child, node: { kind: chance() < 0.6 ? 'open' : 'short', id: node.id } }
}

interface Flow { vRe: number, vIm: number, iRe: number, iIm: number }
const gap = (aRe: number, aIm: number, bRe: number, bIm: number) => Math.hypot(aRe - bRe, aIm - bIm)

test.each([0, 0.1, 0.5])('currents sum up at every joint and volts round every loop, with %d of the speakers open or short', (share) => {
  const heads = { finite: 0, open: 0, short: 0 }
  for (let seed = 1; seed <= 100; seed++) {
    const chance = seeded(seed * 7 + share * 1000)
    const tree = withFaults(randomTree(chance, 1 + Math.floor(chance() * 40), 0.3), chance, share)
    const circuit = compile(tree, asCurve)
    const solver = makeSolver(circuit)
    const frequencyHz = 20 * 1000 ** chance()
    const head = solve(solver, frequencyHz, HEAD_V)
    heads[head.state]++
    const index = new Map(circuit.ids.map((id, i) => [id, i]))
    const at = (node: WiringNode): Flow => flowAt(solver, index.get(node.id)!)
    const scale = head.state === 'finite' ? HEAD_V / head.ohm : 0
    const check = (what: string, off: number, size: number) => {
      if (!(off <= 1e-9 * size + 1e-9)) throw new Error(`seed ${seed}, ${what}: off by ${off}`)
    }

    const visit = (node: WiringNode) => {
      let here = at(node)
      expect(Object.values(here).every(Number.isFinite)).toBe(true)
      if (isGroup(node) && node.through) {
        const { ratio, seriesOhm, seriesH, elastance } = passingOf(node.through)
        const x = 2 * Math.PI * frequencyHz * seriesH - elastance / (2 * Math.PI * frequencyHz)
        const behind = flowAt(solver, index.get(`${node.id}/behind`)!)
        check('volts through a ratio', gap(behind.vRe, behind.vIm, ratio * (here.vRe - seriesOhm * here.iRe + x * here.iIm), ratio * (here.vIm - seriesOhm * here.iIm - x * here.iRe)), HEAD_V + Math.abs(x) * scale)
        check('current through a ratio', gap(ratio * behind.iRe, ratio * behind.iIm, here.iRe, here.iIm), scale)
        here = behind
      }
      if (!isGroup(node)) {
        if (node.kind === 'open') check('current through an open', Math.hypot(here.iRe, here.iIm), scale)
        if (node.kind === 'short') check('volts across a short', Math.hypot(here.vRe, here.vIm), HEAD_V)
        return
      }
      const children = node.children.map(child => ({ r: leadOhm(child.lead), flow: at(child.node) }))
      const sum = (pick: (c: typeof children[number]) => number) => children.reduce((all, c) => all + pick(c), 0)
      if (node.kind === 'series') {
        check('volts of a series', gap(sum(c => c.flow.vRe + c.flow.iRe * c.r), sum(c => c.flow.vIm + c.flow.iIm * c.r), here.vRe, here.vIm), HEAD_V)
        for (const c of children) check('one current in a series', gap(c.flow.iRe, c.flow.iIm, here.iRe, here.iIm), scale)
      }
      else {
        check('currents at a joint', gap(sum(c => c.flow.iRe), sum(c => c.flow.iIm), here.iRe, here.iIm), scale)
        let { vRe, vIm, iRe, iIm } = here
        for (const c of children) {
          const [ampRe, ampIm] = node.kind === 'chain' ? [iRe, iIm] : [c.flow.iRe, c.flow.iIm]
          const [atRe, atIm] = [vRe - ampRe * c.r, vIm - ampIm * c.r]
          check(`volts along a ${node.kind}`, gap(c.flow.vRe, c.flow.vIm, atRe, atIm), HEAD_V)
          if (node.kind === 'chain') [vRe, vIm, iRe, iIm] = [atRe, atIm, iRe - c.flow.iRe, iIm - c.flow.iIm]
        }
      }
      node.children.forEach(c => visit(c.node))
    }
    if (head.state !== 'short') visit(tree.node)
  }
  // The faults must really have been met.
  if (share > 0) expect(heads.open).toBeGreaterThan(0)
  expect(heads.finite).toBeGreaterThan(10)
})
