import { together, type SimpleEdit } from '#core/job/edits'
import { fieldsOf } from '#core/hands/kinds'
import type { Speaker } from '#core/job/schema'
import { isPastItsTransformer } from '#core/line/rules/kinds'
import { cures, lineAfter, type RemedyMaker } from './remedy'

/** A dial that stands on its position past the transformer, turned to a tap: the one that its equals on the line have most, else its lowest. */
export const ontoTap: RemedyMaker = ({ job, line, finding }) => {
  if (finding.code !== 'through-on-line' || line.lineV === null) return []
  const { lineV } = line
  const kindId = line.speakers.find(s => s.id === finding.nodeId)?.kindId
  const kind = job.kinds.find(k => k.id === kindId)
  if (!kind) return []
  const equals = line.speakers.filter(s => s.kindId === kindId)
  const taps = equals.flatMap(s => s.load.kind === 'tap' && s.load.tapW > 0 ? [s.load.tapW] : [])
  const usual = [...taps].sort((a, b) => taps.filter(w => w === b).length - taps.filter(w => w === a).length || a - b)[0]
  const onLine = fieldsOf(kind.model, { load: { kind: 'tap', tapW: usual ?? 0, ratedV: lineV, tapsW: [], insertionDb: null, tapMeans: null }, driverOhm: null })
  if (onLine.load.kind !== 'tap') return []
  const tapW = usual ?? Math.min(...onLine.load.tapsW)
  const { load, driverOhm } = { ...onLine, load: { ...onLine.load, tapW } }
  const past = equals.filter(s => isPastItsTransformer(kind, s.load))
  const edit = together(past.map((s: Speaker): SimpleEdit => ({ kind: 'speaker.set', nodeId: s.id, was: { load: s.load, driverOhm: s.driverOhm }, to: { load, driverOhm } })))
  const after = edit && lineAfter(job, line.outputId, edit)
  return edit && after && cures(after, finding) ? [{ code: 'onto-tap', edit, facts: { code: 'onto-tap', labels: past.map(s => s.label), tapW, drawW: after.drawW ?? 0 } }] : []
}
