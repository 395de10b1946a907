import type { LineEvaluation } from '#core/line/evaluate'

type Searched = Pick<LineEvaluation, 'outputId' | 'speakers' | 'throughs'> & { output: Pick<LineEvaluation['output'], 'label' | 'name'> }

export interface FoundPlace { outputId: string, nodeId: string | null, says: string }

/** Places that the words name, in the order of the sheet: "A2 07", "roof walk", "horn". A line's label before a speaker's narrows it to that line. */
export function placesNamed(lines: readonly Searched[], typed: string): FoundPlace[] {
  const words = typed.trim().toLowerCase()
  if (words === '') return []
  return lines.flatMap(({ outputId, output, speakers, throughs }) => {
    const label = output.label.toLowerCase()
    const isOfLine = words.startsWith(label)
    const rest = isOfLine ? words.slice(label.length).trim() : ''
    const at = (nodeId: string | null, ...said: string[]): FoundPlace => ({ outputId, nodeId, says: [output.label, ...said].filter(Boolean).join(' ') })
    const inLine = speakers.filter(s => isOfLine ? rest !== '' && s.label.toLowerCase().includes(rest) : `${s.label} ${s.name}`.toLowerCase().includes(words))
    const boxes = throughs.filter(({ through }) => isOfLine ? rest !== '' && through.label.toLowerCase() === rest : through.label.toLowerCase() === words)
    const isItself = `${label} ${output.name.toLowerCase()}`.includes(words)
    return [
      ...inLine.map(s => at(s.id, s.label, s.name)), ...boxes.map(({ nodeId, through }) => at(nodeId, through.label, through.name)),
      ...isItself ? [at(null, output.name)] : [],
    ]
  })
}
