import { same } from '#core/quantity/same'
import { JobError } from '../../jobError'
import { refuse } from '../../refusal'
import type { Job, JobDocument } from '../../schema'
import { findPlace } from '../../tree'
import { changedBack, guarded } from '../guard'
import { none, type Section } from '../section'
import { MOST_SPLICES, UNSTATED_SPLICE, type Splice, type SpliceFields } from './schema'
import { splices as shape } from './shape'

/** A speaker by its name; a group has none. */
function nameOf(job: Job, nodeId: string): string {
  const node = findPlace(job, nodeId)?.branch.node
  return node?.kind === 'speaker' ? `the lead to ${node.label}` : 'the lead to that group'
}

/** With what is said of one node. What says nothing any more has no entry. */
function withSplice(job: Job, nodeId: string, fields: SpliceFields): Job {
  const isSaid = !same(fields, UNSTATED_SPLICE)
  const has = job.splices.some(s => s.nodeId === nodeId)
  if (isSaid && !has && job.splices.length >= MOST_SPLICES) refuse({ code: 'too-many', what: 'splices', most: MOST_SPLICES })
  const entry: Splice = { nodeId, ...fields }
  const splices = !isSaid ? job.splices.filter(s => s.nodeId !== nodeId) : has ? job.splices.map(s => s.nodeId === nodeId ? entry : s) : [...job.splices, entry]
  return { ...job, splices }
}

export const splices: Section<'splices'> = {
  shape,
  edits: {
    'colours.set': {
      apply: (job, edit) => {
        if (!same(job.colourExceptions, edit.was)) refuse({ code: 'changed-meanwhile', what: 'the job', field: 'colourExceptions', was: edit.was, now: job.colourExceptions })
        return { job: { ...job, colourExceptions: edit.to }, inverse: { ...edit, was: edit.to, to: edit.was } }
      },
      makes: none, refersTo: none, words: 'pairs with another plus',
    },
    'splice.set': {
      apply: (job, edit) => {
        const { nodeId: _, ...now } = job.splices.find(s => s.nodeId === edit.nodeId) ?? { nodeId: '', ...UNSTATED_SPLICE }
        return { job: withSplice(job, edit.nodeId, { ...now, ...guarded(nameOf(job, edit.nodeId), now, edit) }), inverse: changedBack(now, edit) }
      },
      // One that is gone counts as none: taking back may say again what was said of it.
      makes: none, refersTo: ({ nodeId }) => [{ what: 'speaker', id: nodeId, isLoose: true }], words: 'conductors named', leads: 130,
    },
  },
  fields: { colourExceptions: 'list of pairs with another plus', joint: 'joint', pair: 'conductors', start: 'joint at its beginning', end: 'terminals', connector: 'connector', coils: 'coils', splices: 'splices' },
  lists: { splices: (_, number) => `splice no. ${number}`, colourExceptions: (_, number) => `pair no. ${number}` },
  // They bear the ids of what they belong to.
  has: () => false,
  ids: none,
  names: none,
  check: eachOnce,
}

function eachOnce({ splices }: JobDocument): void {
  const seen = new Set<string>()
  for (const [k, { nodeId }] of splices.entries()) {
    if (seen.has(nodeId)) throw new JobError(`The lead to “${nodeId}” has two entries.`, `splices[${k}].nodeId`)
    seen.add(nodeId)
  }
}
