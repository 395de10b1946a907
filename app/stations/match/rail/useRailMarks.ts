import { computed } from 'vue'
import { useMatchPaneStore } from '~/stations/match/pane'
import { useTraceStore } from '~/stations/trace/suspects'
import { NONE } from '~/stores/choice'
import { useEvaluationStore } from '~/stores/evaluation'
import { useSelectionStore } from '~/stores/selection'

/** What is marked on the tags of rails beside what hangs there: what is suspected, and what is chosen. */
export function useRailMarks() {
  const evaluation = useEvaluationStore()
  const matchPane = useMatchPaneStore()
  const selected = useSelectionStore()
  const trace = useTraceStore()

  const suspects = computed(() => {
    if (matchPane.mode !== 'trace') return null
    const places = new Map<string, { rank: number, chosen: boolean, inCable: boolean }>()
    trace.suspects.forEach(({ fault }, k) => {
      if (!fault?.nodeId) return
      const place = places.get(fault.nodeId)
      const chosen = k === trace.chosenSuspect
      if (!place) places.set(fault.nodeId, { rank: k + 1, chosen, inCable: fault.kind === 'break-in-reach' })
      else if (chosen) place.chosen = true
    })
    return places
  })

  /** The chosen ones of each rail; a rail with none keeps the same empty set and is not drawn again. */
  const chosenByRail = computed(() => {
    const byRail = new Map<string, ReadonlySet<string>>()
    if (selected.isMany) for (const line of evaluation.lines) {
      const here = line.speakers.filter(s => selected.chosen.has(s.id)).map(s => s.id)
      if (here.length > 0) byRail.set(line.outputId, new Set(here))
    }
    return byRail
  })
  return { suspects, chosenOf: (outputId: string) => chosenByRail.value.get(outputId) ?? NONE }
}
