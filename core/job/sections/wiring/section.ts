import { isGroup } from '#core/network/tree'
import { refuse } from '../../refusal'
import { findGroup, findOutput, findPlace, findSpeaker, isInWiring, nodeIds, outputIds, withBranch, withChildren, withOutput, wiringIds } from '../../tree'
import { same } from '#core/quantity/same'
import { changedBack, guarded, guardedWhole, inserted, valid } from '../guard'
import { byName, none, type Section } from '../section'
import { checkWiring } from './check'
import type { Branch } from './schema'
import { namedIn, ofNode, ofOutput, ofSpeaker } from './names'
import { MOST_AMPLIFIERS, MOST_OUTPUTS } from './schema'
import { wiring as shape } from './shape'

const nodeOf = (branch: Record<PropertyKey, unknown>) => (branch.node ?? {}) as Record<string, unknown>

export const wiring: Section<'wiring'> = {
  shape,
  edits: {
    'amplifier.add': {
      apply: (job, { amplifier, index }) => {
        if (job.amplifiers.length >= MOST_AMPLIFIERS) refuse({ code: 'too-many', what: 'amplifiers', most: MOST_AMPLIFIERS })
        const amplifiers = inserted(job.amplifiers, index, amplifier)
        valid(() => checkWiring(amplifiers))
        return { job: { ...job, amplifiers }, inverse: { kind: 'amplifier.remove', amplifierId: amplifier.id, was: amplifier } }
      },
      makes: ({ amplifier }) => [amplifier.id, ...amplifier.outputs.flatMap(outputIds)], refersTo: ({ amplifier }) => amplifier.outputs.flatMap(ofOutput), words: 'amplifier added',
    },
    'amplifier.remove': {
      apply: (job, { amplifierId, was }) => {
        const index = job.amplifiers.findIndex(a => a.id === amplifierId)
        const amplifier = job.amplifiers[index] ?? refuse({ code: 'not-there', what: 'amplifier', id: amplifierId })
        guardedWhole(amplifier.name, amplifier, was)
        return { job: { ...job, amplifiers: job.amplifiers.filter(a => a !== amplifier) }, inverse: { kind: 'amplifier.add', index, amplifier } }
      },
      makes: none, refersTo: none, words: 'amplifier removed',
    },
    'amplifier.set': {
      apply: (job, edit) => {
        const amplifier = job.amplifiers.find(a => a.id === edit.amplifierId)
          ?? refuse({ code: 'not-there', what: 'amplifier', id: edit.amplifierId })
        const changed = { ...amplifier, ...guarded(amplifier.name, amplifier, edit) }
        return { job: { ...job, amplifiers: job.amplifiers.map(a => a === amplifier ? changed : a) }, inverse: changedBack(amplifier, edit) }
      },
      makes: none, refersTo: none, words: 'amplifier details',
    },
    'output.add': {
      apply: (job, { amplifierId, output, index }) => {
        const amplifier = job.amplifiers.find(a => a.id === amplifierId) ?? refuse({ code: 'not-there', what: 'amplifier', id: amplifierId })
        if (amplifier.outputs.length >= MOST_OUTPUTS) refuse({ code: 'too-many', what: `outputs on ${amplifier.name}`, most: MOST_OUTPUTS })
        const amplifiers = job.amplifiers.map(a => a === amplifier ? { ...a, outputs: inserted(a.outputs, index, output) } : a)
        valid(() => checkWiring(amplifiers))
        return { job: { ...job, amplifiers }, inverse: { kind: 'output.remove', outputId: output.id, was: output } }
      },
      makes: ({ output }) => outputIds(output), refersTo: ({ output }) => ofOutput(output), words: 'output added',
    },
    'output.remove': {
      apply: (job, { outputId, was }) => {
        const { amplifier, output } = findOutput(job, outputId) ?? refuse({ code: 'not-there', what: 'output', id: outputId })
        guardedWhole(output.label, output, was)
        const index = amplifier.outputs.indexOf(output)
        const amplifiers = job.amplifiers.map(a => a === amplifier ? { ...a, outputs: a.outputs.filter(o => o !== output) } : a)
        return { job: { ...job, amplifiers }, inverse: { kind: 'output.add', amplifierId: amplifier.id, index, output } }
      },
      makes: none, refersTo: none, words: 'output removed',
    },
    'output.move': {
      apply: (job, { outputId, amplifierId, index }) => {
        const { amplifier: from, output } = findOutput(job, outputId) ?? refuse({ code: 'not-there', what: 'output', id: outputId })
        const to = job.amplifiers.find(a => a.id === amplifierId) ?? refuse({ code: 'not-there', what: 'amplifier', id: amplifierId })
        if (to !== from && to.outputs.length >= MOST_OUTPUTS) refuse({ code: 'too-many', what: `outputs on ${to.name}`, most: MOST_OUTPUTS })
        const without = job.amplifiers.map(a => a === from ? { ...a, outputs: a.outputs.filter(o => o !== output) } : a)
        const amplifiers = without.map(a => a.id === amplifierId ? { ...a, outputs: inserted(a.outputs, index, output) } : a)
        return { job: { ...job, amplifiers }, inverse: { kind: 'output.move', outputId, amplifierId: from.id, index: from.outputs.indexOf(output) } }
      },
      makes: none, refersTo: none, words: 'output moved', leads: 10,
    },
    'output.set': {
      apply: (job, edit) => {
        const { output } = findOutput(job, edit.outputId) ?? refuse({ code: 'not-there', what: 'output', id: edit.outputId })
        const to = guarded(output.label, output, edit)
        return { job: withOutput(job, output.id, o => ({ ...o, ...to })), inverse: changedBack(output, edit) }
      },
      makes: none, refersTo: none, words: 'output details',
    },
    'node.add': {
      apply: (job, { parentId, index, branch }) => {
        const { group } = findGroup(job, parentId) ?? refuse({ code: 'not-there', what: 'group', id: parentId })
        const after = withChildren(job, group.id, children => inserted(children, index, branch))
        valid(() => checkWiring(after.amplifiers))
        return { job: after, inverse: { kind: 'node.remove', nodeId: branch.node.id, was: branch } }
      },
      makes: ({ branch }) => nodeIds(branch.node), refersTo: ({ branch }) => ofNode(branch.node), words: 'speaker added', leads: 61,
    },
    'node.remove': {
      apply: (job, { nodeId, was }) => {
        const { parent, index, branch } = findPlace(job, nodeId) ?? refuse({ code: 'not-there', what: 'speaker', id: nodeId })
        guardedWhole(branch.node.kind === 'speaker' ? branch.node.label : 'the group', branch, was)
        return {
          job: withChildren(job, parent.id, children => children.filter(b => b !== branch)),
          inverse: { kind: 'node.add', parentId: parent.id, index, branch },
        }
      },
      makes: none, refersTo: none, words: 'speaker removed', leads: 60,
    },
    'node.move': {
      apply: (job, { nodeId, parentId, index }) => {
        const { parent, index: from, branch } = findPlace(job, nodeId) ?? refuse({ code: 'not-there', what: 'speaker', id: nodeId })
        if (nodeIds(branch.node).includes(parentId)) refuse({ code: 'inside-itself', id: nodeId })
        const without = withChildren(job, parent.id, children => children.filter(b => b !== branch))
        const target = findGroup(without, parentId) ?? refuse({ code: 'not-there', what: 'group', id: parentId })
        const after = withChildren(without, target.group.id, children => inserted(children, index, branch))
        valid(() => checkWiring(after.amplifiers))
        return { job: after, inverse: { kind: 'node.move', nodeId, parentId: parent.id, index: from } }
      },
      makes: none, refersTo: none, words: 'speaker moved', leads: 62,
    },
    'speaker.set': {
      apply: (job, edit) => {
        const { speaker } = findSpeaker(job, edit.nodeId) ?? refuse({ code: 'not-there', what: 'speaker', id: edit.nodeId })
        const to = guarded(`speaker ${speaker.label}`, speaker, edit)
        const change = (branch: Branch): Branch => ({ ...branch, node: { ...speaker, ...to } })
        return { job: withBranch(job, edit.nodeId, change), inverse: changedBack(speaker, edit) }
      },
      makes: none, refersTo: ({ to }) => ofSpeaker(to), words: 'speaker changed', leads: 70,
    },
    'lead.set': {
      apply: (job, edit) => {
        const { branch } = findPlace(job, edit.nodeId) ?? refuse({ code: 'not-there', what: 'speaker', id: edit.nodeId })
        if (!same(branch.lead, edit.was)) {
          const what = branch.node.kind === 'speaker' ? `the lead of ${branch.node.label}` : 'the lead'
          refuse({ code: 'changed-meanwhile', what, field: 'lead', was: edit.was, now: branch.lead })
        }
        return { job: withBranch(job, edit.nodeId, b => ({ ...b, lead: edit.to })), inverse: { ...edit, was: edit.to, to: edit.was } }
      },
      makes: none, refersTo: none, words: 'cable changed', leads: 80,
    },
    'through.set': {
      apply: (job, edit) => {
        const node = findPlace(job, edit.nodeId)?.branch.node
        if (!node || !isGroup(node)) return refuse({ code: 'not-there', what: 'group', id: edit.nodeId })
        const now = node.through ?? null
        if (!same(now, edit.was)) refuse({ code: 'changed-meanwhile', what: now?.label ?? 'the group', field: 'through', was: edit.was, now })
        const { through: _, ...bare } = node
        const after = withBranch(job, node.id, b => ({ ...b, node: edit.to ? { ...bare, through: edit.to } : bare }))
        valid(() => checkWiring(after.amplifiers))
        return { job: after, inverse: { ...edit, was: edit.to, to: edit.was } }
      },
      makes: none, refersTo: none, words: 'control or transformer changed', leads: 30,
    },
  },
  fields: {
    name: 'name', place: 'place', label: 'label', rating: 'rating', load: 'tap or impedance', continuousW: 'power rating',
    driverOhm: 'driver impedance', lead: 'lead',
    through: 'control or transformer', highPassHz: 'high-pass', band: 'band', limiterV: 'limiter', made: 'what it is made as', gainDb: 'gain', inputV: 'input for full power', inputOhm: 'input impedance', inputs: 'inputs', terminals: 'terminals', protection: 'protection',
  },
  lists: {
    amplifiers: byName('amplifier'),
    outputs: (output, number) => `output ${byName('', 'label')(output, number).trim()}`,
    // Groups have no name: only what hangs in them is named.
    children: (branch, number) => nodeOf(branch).kind === 'speaker' ? `speaker ${byName('no.', 'label')(nodeOf(branch), number)}` : '',
  },
  has: isInWiring,
  ids: document => wiringIds(document).map(id => [id, 'amplifiers'] as const),
  names: ({ amplifiers }) => namedIn(amplifiers, ['amplifiers']),
  check: ({ amplifiers }) => checkWiring(amplifiers),
}
