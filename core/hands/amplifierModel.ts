import type { AmplifierModel } from '#core/gear/amplifier'
import type { OutputRating } from '#core/amplifier/rating'
import { isSameVoltage } from '#core/quantity/tolerance'
import { setting, together, type Edit, type SimpleEdit } from '#core/job/edits'
import { inputsOfModel } from './inputs'
import { addOutput, type NewId } from './intents'
import { applyEdit } from '#core/job/apply'
import type { Amplifier, Job, Origin, Output } from '#core/job/schema'
import { same } from '#core/quantity/same'

/** An amplifier of the job as a model of the library has it: name, ratings, inputs, as many outputs as it has. */

/** What a model states of an amplifier beside its outputs. */
const STATED = ['made', 'gainDb', 'inputV', 'inputOhm', 'protection', 'highPassHz'] as const
type Stated = Pick<Amplifier, typeof STATED[number]>
type Own = Stated & Pick<Amplifier, 'name' | 'from' | 'inputs'>
type ModelOutput = AmplifierModel['outputs'][number]

/** What a model does not state of it stays as it is. */
export function statedOf(model: AmplifierModel, now: Stated): Stated {
  return Object.fromEntries(STATED.map(field => [field, model[field] === null || model[field] === '' ? now[field] : model[field]])) as Stated
}

/**
 * What one output of a model gives: into loads where it is rated so and no line is meant, from the taps of its valves, else at the line
 * voltage nearest to the one meant.
 */
export function statedRating({ points, lines, floorOhm, valve }: ModelOutput, now: OutputRating, bridgedFloorOhm: number | null): OutputRating {
  const meansLine = now.kind === 'constant-voltage'
  const [first] = lines
  if (points.length > 0 && !(meansLine && first)) return { kind: 'solid-state', points, floorOhm, mode: now.kind === 'solid-state' ? now.mode : 'single', bridgedFloorOhm }
  if (valve && !(meansLine && first)) return { kind: 'valve', powerW: valve.powerW, tapsOhm: valve.tapsOhm, tapOhm: now.kind === 'valve' && now.tapOhm !== null && valve.tapsOhm.includes(now.tapOhm) ? now.tapOhm : null, chosenBy: valve.chosenBy }
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
  const to: Own = {
    name: model.name, from, ...statedOf(model, amplifier),
    inputs: model.inputs.length === 0 ? amplifier.inputs : inputsOfModel(model.inputs, amplifier.inputs),
  }
  const changed = Object.fromEntries(Object.entries(to).filter(([field, value]) => !same(amplifier[field as keyof Own], value)))
  const edits: SimpleEdit[] = Object.keys(changed).length === 0 ? [] : [{ kind: 'amplifier.set', amplifierId, ...setting<Own, Partial<Own>>(amplifier, changed) }]
  amplifier.outputs.forEach((output, k) => {
    const rating = wanted[k] && statedRating(wanted[k], output.rating, model.bridgedFloorOhm)
    if (rating && !same(rating, output.rating)) edits.push({ kind: 'output.set', outputId: output.id, ...setting<Pick<Output, 'rating'>, { rating: OutputRating }>(output, { rating }) })
  })
  let current = edits.reduce((j, edit) => applyEdit(j, edit).job, job)
  for (const group of wanted.slice(amplifier.outputs.length)) {
    const added = addOutput(current, amplifierId, newId)
    if (added?.edit.kind !== 'output.add') break
    const add: SimpleEdit = { ...added.edit, output: { ...added.edit.output, rating: statedRating(group, amplifier.outputs[0]?.rating ?? { kind: 'not-known' }, model.bridgedFloorOhm) } }
    current = applyEdit(current, add).job
    edits.push(add)
  }
  return { edit: together(edits), beyond: amplifier.outputs.slice(wanted.length).map(o => o.label) }
}
