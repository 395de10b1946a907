import type { LineProof } from './proof'
import { stateOf } from './proof'
import { KIND_NAMES } from './gradeWords'

/** What of a line is not proved, in one sentence: "Not proved yet: line impedance; coil DCR of 04 to 06; polarity of 02 and 05." Empty where all is. */
export function openWords({ asks, standing }: Pick<LineProof, 'asks' | 'standing'>): string {
  const open = new Map<string, string[]>()
  const all = new Map<string, string[]>()
  for (const ask of asks) {
    const name = KIND_NAMES[ask.kinds[0]!]
    const label = ask.speaker?.label ?? ''
    all.set(name, [...all.get(name) ?? [], label])
    const state = stateOf(standing, ask)
    if (state !== 'good' && state !== 'left') open.set(name, [...open.get(name) ?? [], label])
  }
  if (open.size === 0) return ''
  const said = [...open].map(([name, labels]) => {
    if (labels.length === 1 && labels[0] === '') return name
    const isAll = labels.length === all.get(name)!.length && labels.length > 2
    return `${name} of ${isAll ? 'all' : labels.length > 4 ? `${labels.slice(0, 3).join(', ')} and ${labels.length - 3} more` : labels.join(' and ')}`
  })
  return `Not proved yet: ${said.join('; ')}.`
}

/** What was found and left, each with its reason. */
export function leftWords({ standing }: Pick<LineProof, 'standing'>, labelOf: (nodeId: string | null) => string): string[] {
  return [...standing.values()].flatMap(({ left, reading }) => left ? [`${labelOf(reading.nodeId)} ${KIND_NAMES[reading.kind]}, found and left: ${left.reason}`] : [])
}
