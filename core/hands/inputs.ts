import type { InputGroup } from '#core/gear/inputs'
import { together, type Edit, type SimpleEdit } from '#core/job/edits'
import type { Amplifier, Input, Job, Source } from '#core/job/schema'
import { MOST_INPUTS, UNSTATED_AMPLIFIER, UNSTATED_INPUT, UNSTATED_SOURCE } from '#core/job/sections/wiring/schema'
import { same } from '#core/quantity/same'
import type { NewId } from './intents'

/** What hands say of inputs and of what comes in there. One name is one source: what is said of it at one input is said at all of them. */

const setInputs = ({ id, inputs }: Pick<Amplifier, 'id' | 'inputs'>, to: Input[]): SimpleEdit[] =>
  same(inputs, to) ? [] : [{ kind: 'amplifier.set', amplifierId: id, was: { inputs }, to: { inputs: to } }]

type Facts = Omit<Source, 'name'>
const factsOf = ({ name: _, ...facts }: Source): Facts => facts

/** What is known already of a source of that name, at whichever input. */
function knownAs(job: Pick<Job, 'amplifiers'>, name: string): Facts | null {
  const source = job.amplifiers.flatMap(a => a.inputs).find(i => i.source?.name === name)?.source
  return source ? factsOf(source) : null
}

/** Changes an input itself, not what comes in there. */
export function setInput(job: Pick<Job, 'amplifiers'>, amplifierId: string, at: number, to: Partial<Omit<Input, 'source'>>): Edit | null {
  const amplifier = job.amplifiers.find(a => a.id === amplifierId)
  return amplifier?.inputs[at] ? together(setInputs(amplifier, amplifier.inputs.map((input, k) => k === at ? { ...input, ...to } : input))) : null
}

/**
 * Another source at an input, by its name; '' takes it out, the input stays. One that is known elsewhere comes with what is said of it.
 * @param device the mixer or amplifier of the job that it is; null for none
 */
export function nameSource(job: Pick<Job, 'amplifiers'>, amplifierId: string, at: number, name: string, device: string | null = null): Edit | null {
  const amplifier = job.amplifiers.find(a => a.id === amplifierId)
  const now = amplifier?.inputs[at]
  if (!amplifier || !now || now.source?.name === name) return null
  // Renamed where it stands alone: what is known of it stays. A name that is there already is that source.
  const isAlone = now.source !== null && sourcesNamed(job, now.source.name) === 1
  // What a device gives on is at line level.
  const unsaid = device !== null ? { ...UNSTATED_SOURCE, kind: 'line' as const, deviceId: device } : isAlone ? { ...factsOf(now.source!), deviceId: null } : UNSTATED_SOURCE
  const source = name === '' ? null : { name, ...knownAs(job, name) ?? unsaid }
  return together(setInputs(amplifier, amplifier.inputs.map((input, k) => k === at ? { ...input, source } : input)))
}
const sourcesNamed = (job: Pick<Job, 'amplifiers'>, name: string): number => job.amplifiers.flatMap(a => a.inputs).filter(i => i.source?.name === name).length

/** What is known of a source, wherever it comes in. */
export function setSource(job: Pick<Job, 'amplifiers'>, name: string, to: Partial<Facts>): Edit | null {
  return together(job.amplifiers.flatMap(amplifier => setInputs(amplifier, amplifier.inputs.map(input =>
    input.source?.name === name ? { ...input, source: { ...input.source, ...to } } : input))))
}

/** One input more; with it what comes in there, where that is said. */
export function addInput(job: Pick<Job, 'amplifiers'>, amplifierId: string, said: Partial<Input> = {}): Edit | null {
  const amplifier = job.amplifiers.find(a => a.id === amplifierId)
  if (!amplifier || amplifier.inputs.length >= MOST_INPUTS) return null
  return together(setInputs(amplifier, [...amplifier.inputs, { ...UNSTATED_INPUT, count: 1, ...said }]))
}

export function removeInput(job: Pick<Job, 'amplifiers'>, amplifierId: string, at: number): Edit | null {
  const amplifier = job.amplifiers.find(a => a.id === amplifierId)
  return amplifier ? together(setInputs(amplifier, amplifier.inputs.filter((_, k) => k !== at))) : null
}

/** A mixer beside the amplifiers: inputs, and no speaker hangs on it. */
export function addMixer(job: Pick<Job, 'amplifiers'>, newId: NewId): { edit: SimpleEdit, amplifierId: string } {
  const names = new Set(job.amplifiers.map(a => a.name))
  let name = 'Mixer'
  for (let k = 2; names.has(name); k++) name = `Mixer ${k}`
  const amplifier: Amplifier = { id: newId(), name, place: '', ...UNSTATED_AMPLIFIER, made: 'mixer', inputs: [{ ...UNSTATED_INPUT, count: 1 }], outputs: [] }
  return { edit: { kind: 'amplifier.add', index: 0, amplifier }, amplifierId: amplifier.id }
}

/**
 * Inputs as a model has them, with what comes in already: each source on the first free one that is made for it. What finds none keeps the input that it
 * has: nothing is taken out.
 */
export function inputsOfModel(groups: readonly InputGroup[], now: readonly Input[]): Input[] {
  const made = groups.flatMap(({ count, takes, isOver }) =>
    Array.from({ length: count }, (): Input => ({ ...UNSTATED_INPUT, takes: [...takes], isOver, count: 1 })))
  const rest: Input[] = []
  for (const input of now) {
    const { source } = input
    const free = made.find(m => m.source === null && m.label === '' && (source?.kind == null || m.takes.includes(source.kind))
      && (input.takes.length === 0 || same(input.takes, m.takes)))
    if (!free) {
      if (source !== null || input.label !== '' || groups.length === 0) rest.push(input)
      continue
    }
    Object.assign(free, { source, label: input.label, sum: input.sum, isOver: free.isOver ?? input.isOver })
  }
  return [...made, ...rest].slice(0, MOST_INPUTS)
}

/** How many sources of each kind come into a job, mixers between apart. */
export function sourceCounts(job: Pick<Job, 'amplifiers'>): Record<'microphone' | 'media' | 'line', number> {
  const all = job.amplifiers.flatMap(a => a.inputs.flatMap(i => i.source ?? []))
  const sources = new Map(all.flatMap(({ name, kind, deviceId }) => deviceId === null ? [[name, kind] as const] : []))
  const count = (kind: string) => [...sources.values()].filter(k => k === kind).length
  return { microphone: count('microphone'), media: count('media'), line: count('line') }
}
