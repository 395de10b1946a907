import { isGroup } from '#core/network/tree'
import { checkValue, checkWhole, JobError } from './readJob'
import { refuse } from './refusal'
import type { Edit, EditOf, SimpleEdit } from './edits'
import type { Branch, Job } from './schema'
import { branchesOf, findGroup, findOutput, findPlace, findSpeaker, idsOf, outputIds, withBranch, withChildren, withOutput } from './tree'

/** A job after an edit, and the edit that takes it back. */
export interface Applied { job: Job, inverse: Edit }

type Apply<K extends SimpleEdit['kind']> = (job: Job, edit: EditOf<K>) => { job: Job, inverse: SimpleEdit }

/**
 * Applies one edit. Pure: the device and the server run the same function and get the same job.
 * @throws EditRefused when the edit does not fit the job as it now is; nothing is changed then
 */
export function applyEdit(job: Job, edit: Edit): Applied {
  if (edit.kind !== 'batch') return applySimple(job, edit)
  const inverses: SimpleEdit[] = []
  let current = job
  for (const part of edit.edits) {
    const applied = applySimple(current, part)
    current = applied.job
    inverses.unshift(applied.inverse)
  }
  return { job: current, inverse: { kind: 'batch', edits: inverses } }
}

function applySimple(job: Job, edit: SimpleEdit): { job: Job, inverse: SimpleEdit } {
  return (APPLY[edit.kind] as Apply<SimpleEdit['kind']>)(job, edit as never)
}

const APPLY: { [K in SimpleEdit['kind']]: Apply<K> } = {
  'job.set': (job, edit) => ({ job: { ...job, ...guarded('job', job, edit) }, inverse: swapped(edit) }),

  'practice.set': (job, edit) => ({
    job: { ...job, practice: { ...job.practice, ...guarded('practice', job.practice, edit) } },
    inverse: swapped(edit),
  }),

  'amplifier.add': (job, { amplifier, index }) => {
    noneTaken(job, [amplifier.id, ...amplifier.outputs.flatMap(outputIds)])
    return {
      job: whole({ ...job, amplifiers: inserted(job.amplifiers, index, amplifier) }),
      inverse: { kind: 'amplifier.remove', amplifierId: amplifier.id },
    }
  },
  'amplifier.remove': (job, { amplifierId }) => {
    const index = job.amplifiers.findIndex(a => a.id === amplifierId)
    const amplifier = job.amplifiers[index] ?? refuse({ code: 'not-there', what: 'amplifier', id: amplifierId })
    return {
      job: { ...job, amplifiers: job.amplifiers.filter(a => a !== amplifier) },
      inverse: { kind: 'amplifier.add', index, amplifier },
    }
  },
  'amplifier.set': (job, edit) => {
    const amplifier = job.amplifiers.find(a => a.id === edit.amplifierId)
      ?? refuse({ code: 'not-there', what: 'amplifier', id: edit.amplifierId })
    const changed = { ...amplifier, ...guarded(amplifier.name, amplifier, edit) }
    return { job: { ...job, amplifiers: job.amplifiers.map(a => a === amplifier ? changed : a) }, inverse: swapped(edit) }
  },

  'output.add': (job, { amplifierId, output, index }) => {
    if (!job.amplifiers.some(a => a.id === amplifierId)) refuse({ code: 'not-there', what: 'amplifier', id: amplifierId })
    noneTaken(job, outputIds(output))
    const amplifiers = job.amplifiers.map(a => a.id === amplifierId ? { ...a, outputs: inserted(a.outputs, index, output) } : a)
    return { job: whole({ ...job, amplifiers }), inverse: { kind: 'output.remove', outputId: output.id } }
  },
  'output.remove': (job, { outputId }) => {
    const { amplifier, output } = findOutput(job, outputId) ?? refuse({ code: 'not-there', what: 'output', id: outputId })
    const index = amplifier.outputs.indexOf(output)
    const amplifiers = job.amplifiers.map(a => a === amplifier ? { ...a, outputs: a.outputs.filter(o => o !== output) } : a)
    return { job: { ...job, amplifiers }, inverse: { kind: 'output.add', amplifierId: amplifier.id, index, output } }
  },
  'output.set': (job, edit) => {
    const { output } = findOutput(job, edit.outputId) ?? refuse({ code: 'not-there', what: 'output', id: edit.outputId })
    const to = guarded(output.label, output, edit)
    return { job: withOutput(job, output.id, o => ({ ...o, ...to })), inverse: swapped(edit) }
  },

  'node.add': (job, { parentId, index, branch }) => {
    const { group } = findGroup(job, parentId) ?? refuse({ code: 'not-there', what: 'group', id: parentId })
    noneTaken(job, [branch.node.id, ...(isGroup(branch.node) ? branchesOf(branch.node).map(b => b.node.id) : [])])
    return {
      job: whole(withChildren(job, group.id, children => inserted(children, index, branch))),
      inverse: { kind: 'node.remove', nodeId: branch.node.id },
    }
  },
  'node.remove': (job, { nodeId }) => {
    const { parent, index, branch } = findPlace(job, nodeId) ?? refuse({ code: 'not-there', what: 'speaker', id: nodeId })
    return {
      job: withChildren(job, parent.id, children => children.filter(b => b !== branch)),
      inverse: { kind: 'node.add', parentId: parent.id, index, branch },
    }
  },
  'node.move': (job, { nodeId, parentId, index }) => {
    const { parent, index: from, branch } = findPlace(job, nodeId) ?? refuse({ code: 'not-there', what: 'speaker', id: nodeId })
    const inside = [branch.node, ...(isGroup(branch.node) ? branchesOf(branch.node).map(b => b.node) : [])]
    if (inside.some(node => node.id === parentId)) refuse({ code: 'inside-itself', id: nodeId })
    const without = withChildren(job, parent.id, children => children.filter(b => b !== branch))
    const target = findGroup(without, parentId) ?? refuse({ code: 'not-there', what: 'group', id: parentId })
    return {
      job: whole(withChildren(without, target.group.id, children => inserted(children, index, branch))),
      inverse: { kind: 'node.move', nodeId, parentId: parent.id, index: from },
    }
  },

  'speaker.set': (job, edit) => {
    const { speaker } = findSpeaker(job, edit.nodeId) ?? refuse({ code: 'not-there', what: 'speaker', id: edit.nodeId })
    const to = guarded(`speaker ${speaker.label}`, speaker, edit)
    const change = (branch: Branch): Branch => ({ ...branch, node: { ...speaker, ...to } })
    return { job: withBranch(job, edit.nodeId, change), inverse: swapped(edit) }
  },
  'lead.set': (job, edit) => {
    const { branch } = findPlace(job, edit.nodeId) ?? refuse({ code: 'not-there', what: 'speaker', id: edit.nodeId })
    if (!same(branch.lead, edit.was)) {
      const what = branch.node.kind === 'speaker' ? `the lead of ${branch.node.label}` : 'the lead'
      refuse({ code: 'changed-meanwhile', what, field: 'lead', was: edit.was, now: branch.lead })
    }
    return { job: withBranch(job, edit.nodeId, b => ({ ...b, lead: edit.to })), inverse: { ...edit, was: edit.to, to: edit.was } }
  },

  'reading.add': (job, { reading }) => {
    noneTaken(job, [reading.id])
    if (!findOutput(job, reading.outputId)) refuse({ code: 'not-there', what: 'output', id: reading.outputId })
    if (reading.nodeId !== null && findSpeaker(job, reading.nodeId)?.output.id !== reading.outputId) {
      refuse({ code: 'not-there', what: 'speaker', id: reading.nodeId })
    }
    if (reading.supersedes !== null && !job.readings.some(r => r.id === reading.supersedes)) {
      refuse({ code: 'not-there', what: 'reading', id: reading.supersedes })
    }
    valid(() => checkValue(reading.kind, reading.value.is, reading.nodeId, 'reading'))
    return {
      job: { ...job, readings: [...job.readings, reading] },
      inverse: { kind: 'reading.withdraw', readingId: reading.id, withdrawn: true },
    }
  },
  'reading.withdraw': (job, edit) => {
    if (!job.readings.some(r => r.id === edit.readingId)) refuse({ code: 'not-there', what: 'reading', id: edit.readingId })
    const readings = job.readings.map(r => r.id === edit.readingId ? { ...r, withdrawn: edit.withdrawn } : r)
    return { job: { ...job, readings }, inverse: { ...edit, withdrawn: !edit.withdrawn } }
  },
  'repair.add': (job, { repair }) => {
    noneTaken(job, [repair.id])
    if (findPlace(job, repair.nodeId)?.output.id !== repair.outputId) refuse({ code: 'not-there', what: 'speaker', id: repair.nodeId })
    return {
      job: { ...job, repairs: [...job.repairs, repair] },
      inverse: { kind: 'repair.withdraw', repairId: repair.id, withdrawn: true },
    }
  },
  'repair.withdraw': (job, edit) => {
    if (!job.repairs.some(r => r.id === edit.repairId)) refuse({ code: 'not-there', what: 'repair', id: edit.repairId })
    const repairs = job.repairs.map(r => r.id === edit.repairId ? { ...r, withdrawn: edit.withdrawn } : r)
    return { job: { ...job, repairs }, inverse: { ...edit, withdrawn: !edit.withdrawn } }
  },
}

/** `to`, once it is sure that every field still is what the edit says it was. */
function guarded<T extends object>(what: string, now: object, { was, to }: { was: T, to: T }): T {
  const current = now as Record<string, unknown>
  for (const field of Object.keys(to)) {
    if (!(field in was)) refuse({ code: 'not-valid', message: `“${field}” is set without saying what it was` })
  }
  for (const [field, value] of Object.entries(was)) {
    if (!same(current[field], value)) refuse({ code: 'changed-meanwhile', what, field, was: value, now: current[field] })
  }
  return to
}

function swapped<E extends { was: unknown, to: unknown }>(edit: E): E {
  return { ...edit, was: edit.to, to: edit.was }
}

/** Equal as JSON would keep them, whatever the order of keys. */
function same(a: unknown, b: unknown): boolean {
  if (a === b) return true
  if (a === null || b === null || typeof a !== 'object' || typeof b !== 'object' || Array.isArray(a) !== Array.isArray(b)) return false
  const keys = Object.keys(a)
  return keys.length === Object.keys(b).length
    && keys.every(key => key in b && same((a as Record<string, unknown>)[key], (b as Record<string, unknown>)[key]))
}

function inserted<T>(list: T[], index: number, item: T): T[] {
  const at = Math.min(index, list.length)
  return [...list.slice(0, at), item, ...list.slice(at)]
}

function noneTaken(job: Job, ids: string[]): void {
  const taken = new Set(idsOf(job))
  for (const id of ids) {
    if (taken.has(id)) refuse({ code: 'already-there', id })
    taken.add(id)
  }
}

function whole(job: Job): Job {
  valid(() => checkWhole(job))
  return job
}

function valid(check: () => void): void {
  try {
    check()
  }
  catch (error) {
    if (error instanceof JobError) refuse({ code: 'not-valid', message: error.message })
    throw error
  }
}
