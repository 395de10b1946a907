import { fieldsOf, giveKind } from '#core/hands/kinds'
import type { SpeakerLoad } from '#core/job/schema'
import { same } from '#core/quantity/same'
import { lineAfter, type RemedyMaker } from './remedy'

/** Open units whose remark asks for a can become of a kind of the job that has one, where it has their taps. */
export const withCan: RemedyMaker = ({ job, line, finding }) => {
  if (finding.code !== 'asks-for-can') return []
  const { remark } = finding.facts
  const open = line.speakers.filter(s => job.kinds.some(k => k.id === s.kindId && k.model.build === 'ceiling-open' && k.model.remark === remark))
  return job.kinds.filter(k => k.model.build === 'ceiling-can').flatMap((kind) => {
    // On its own tap each, as before: else it would be another line.
    const keepsTaps = open.every(s => s.load.kind !== 'tap' || s.load.tapW === 0 || tapsOf(fieldsOf(kind.model, s).load).includes(s.load.tapW))
    const edit = keepsTaps ? giveKind(job, open.map(s => s.id), kind.id, () => line.lineV) : null
    if (!edit || lineAfter(job, line.outputId, edit).findings.some(f => f.code === 'asks-for-can' && same(f.facts, finding.facts))) return []
    return [{ code: 'with-can', edit, facts: { code: 'with-can', labels: open.map(s => s.label), kind: kind.model.name } }]
  })
}

const tapsOf = (load: SpeakerLoad) => load.kind === 'tap' ? load.tapsW : []
