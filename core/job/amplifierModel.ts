import type { AmplifierModel } from '#core/gear/amplifier'
import type { OutputRating } from '#core/amplifier/rating'
import { isSameVoltage } from '#core/quantity/tolerance'
import { setting, together, type Edit, type SimpleEdit } from './edits'
import { addOutput, type NewId } from './intents'
import { applyEdit } from './apply'
import type { Amplifier, Job, Origin, Output } from './schema'
import { same } from './sections/guard'

/** An amplifier of the job as a model of the library has it: name, ratings, as many outputs as it has. */

type Own = Pick<Amplifier, 'name' | 'from' | 'highPassHz'>
type ModelOutput = AmplifierModel['outputs'][number]

/** What one output of a model gives: into loads where it is rated so and no line is meant, else at the line voltage nearest to the one meant. */
export function ratingOf({ points, lines, floorOhm }: ModelOutput, now: OutputRating): OutputRating {
  const meansLine = now.kind === 'constant-voltage'
  if (points.length > 0 && !(meansLine && lines.length > 0)) return { kind: 'solid-state', points, floorOhm, mode: now.kind === 'solid-state' ? now.mode : 'single' }
  const [first] = lines
  const line = meansLine ? lines.find(l => isSameVoltage(l.lineV, now.lineV)) ?? first : first
  return line ? { kind: 'constant-voltage', lineV: line.lineV, powerW: line.powerW } : { kind: 'not-known' }
}

/** One edit; outputs that the model has not stay as they are, and are given back by their labels. */
export function asAmplifierModel(
  job: Job, amplifierId: string, model: AmplifierModel, from: Origin | null, newId: NewId,
): { edit: Edit | null, beyond: string[] } {
  const amplifier = job.amplifiers.find(a => a.id === amplifierId)
  if (!amplifier) return { edit: null, beyond: [] }
  const wanted = model.outputs.flatMap(group => Array.from({ length: group.count }, () => group))
  const to = { name: model.name, from, highPassHz: model.highPassHz ?? amplifier.highPassHz }
  const own: Own = { name: amplifier.name, from: amplifier.from, highPassHz: amplifier.highPassHz }
  const edits: SimpleEdit[] = same(own, to) ? [] : [{ kind: 'amplifier.set', amplifierId, ...setting<Own, Own>(own, to) }]
  amplifier.outputs.forEach((output, k) => {
    const rating = wanted[k] && ratingOf(wanted[k], output.rating)
    if (rating && !same(rating, output.rating)) edits.push({ kind: 'output.set', outputId: output.id, ...setting<Pick<Output, 'rating'>, { rating: OutputRating }>(output, { rating }) })
  })
  let current = edits.reduce((j, edit) => applyEdit(j, edit).job, job)
  for (const group of wanted.slice(amplifier.outputs.length)) {
    const added = addOutput(current, amplifierId, newId)
    if (added?.edit.kind !== 'output.add') break
    const add: SimpleEdit = { ...added.edit, output: { ...added.edit.output, rating: ratingOf(group, amplifier.outputs[0]?.rating ?? { kind: 'not-known' }) } }
    current = applyEdit(current, add).job
    edits.push(add)
  }
  return { edit: together(edits), beyond: amplifier.outputs.slice(wanted.length).map(o => o.label) }
}
