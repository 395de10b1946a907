import type { Conductor } from '#core/gear/conductor'
import { connectorFacts } from '#core/gear/connector'
import type { Amplifier, Input, Job, Output } from '#core/job/schema'
import { SOURCE_WORDS } from '#core/line/inputWords'
import { deviceOf, inputName, sourceName } from '#core/line/sources'
import { pairAt } from '#core/polarity/harness'

/** The rack as it stands: of each device what comes in at which input, and which conductor lies on which terminal of its outputs. */
export interface RackInput {
  at: number
  name: string
  /** What it is made for; empty: not stated. */
  takes: string
  /** Null: nothing comes in there. */
  source: string | null
  /** What is said of it, in words; what nobody knows is among them. */
  says: string[]
}
export interface RackOutput {
  output: Output
  /** As printed; empty: not known. */
  plus: string
  minus: string
  connector: string
  /** What the connector asks for; empty for nothing. */
  mind: string
  /** On plus, on minus; null: not known. */
  pair: readonly [Conductor, Conductor] | null
}
export interface RackDevice { amplifier: Amplifier, inputs: RackInput[], outputs: RackOutput[] }

export function rackOf(job: Job): RackDevice[] {
  // What mixes stands before what it feeds, as the signal goes.
  const rank = ({ made }: Amplifier) => made === 'mixer' ? 0 : 1
  return [...job.amplifiers].sort((a, b) => rank(a) - rank(b)).map(amplifier => ({
    amplifier,
    inputs: amplifier.inputs.map((input, at) => ({ at, name: inputName(input, at), takes: input.takes.map(kind => SOURCE_WORDS[kind]).join(' or '), source: input.source && sourceName(job, input.source), says: inputSays(job, input) })),
    outputs: amplifier.outputs.map((output) => {
      const { connector = null, plus = '', minus = '' } = output.terminals ?? {}
      const facts = connector === null ? null : connectorFacts(connector)
      return { output, plus, minus, connector: facts?.says ?? '', mind: facts?.mind ?? '', pair: pairAt(job, output) }
    }),
  }))
}

const SUM_WORDS = { 'summed': 'both sides summed', 'one-side': 'one side only', 'both': 'both sides apart' } as const
function inputSays(job: Job, { source, isOver, sum, count }: Input): string[] {
  if (!source) return isOver === true ? ['over the others'] : []
  const isDevice = deviceOf(job, source) !== null
  return [
    isDevice ? 'from the device of that name here' : source.kind === null ? 'what it brings is not known' : SOURCE_WORDS[source.kind],
    isOver === true ? 'over the others' : isOver === false ? 'beside the others' : source.kind === 'microphone' ? 'whether it goes over the others is not known' : '',
    source.isStereo ? (sum === null ? 'two sides; whether summed is not known' : SUM_WORDS[sum]) : '',
    count === null ? 'on every channel' : count > 1 ? `on ${count} inputs` : '',
  ].filter(text => text !== '')
}
