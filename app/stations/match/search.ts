import type { LineEvaluation } from '#core/match/evaluate'

type Searched = Pick<LineEvaluation, 'outputId' | 'speakers' | 'throughs'> & { output: Pick<LineEvaluation['output'], 'label' | 'name'> }

/** The first place that the words name: "A2 07", "roof walk", "horn". A line's label before a speaker's narrows it to that line. */
export function findPlace(lines: readonly Searched[], typed: string): { outputId: string, nodeId: string | null } | null {
  const words = typed.trim().toLowerCase()
  if (words === '') return null
  for (const { outputId, output, speakers, throughs } of lines) {
    const label = output.label.toLowerCase()
    const isOfLine = words.startsWith(label)
    const rest = isOfLine ? words.slice(label.length).trim() : ''
    const speaker = speakers.find(s => isOfLine ? rest !== '' && s.label.toLowerCase().includes(rest) : `${s.label} ${s.name}`.toLowerCase().includes(words))
    if (speaker) return { outputId, nodeId: speaker.id }
    const box = throughs.find(({ through }) => isOfLine ? rest !== '' && through.label.toLowerCase() === rest : through.label.toLowerCase() === words)
    if (box) return { outputId, nodeId: box.nodeId }
    if (`${label} ${output.name.toLowerCase()}`.includes(words)) return { outputId, nodeId: null }
  }
  return null
}
