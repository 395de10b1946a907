import { computed } from 'vue'
import type { FaultKind } from '#core/job/schema'
import { useMatchPaneStore } from '~/stations/match/pane'
import { useTraceStore } from '~/stations/trace/suspects'
import { NONE } from '~/stores/choice'
import { useEvaluationStore } from '~/stores/evaluation'
import { useSelectionStore } from '~/stores/selection'

/** Of the run to a place, not of the place. */
const IN_CABLE: ReadonlySet<FaultKind> = new Set(['break-in-reach', 'joint-in-run', 'short-in-run', 'pair-crossed'])

/** What is marked on the tags of rails beside what hangs there: what is suspected, and what is chosen. */
export function useRailMarks() {
  const evaluation = useEvaluationStore()
  const matchPane = useMatchPaneStore()
  const selected = useSelectionStore()
  const trace = useTraceStore()

  const suspects = computed(() => {
    if (matchPane.mode !== 'trace') return null
    const places = new Map<string, { rank: number, chosen: boolean, inCable: boolean }>()
    // A line that reads as it should has nothing to be marked.
    if (!trace.isWrongNow) return places
    trace.rows.forEach((row, k) => row.suspects.forEach(({ faults }, n) => faults.forEach(({ nodeId, kind }) => {
      if (nodeId === null || trace.numbers[k] == null) return
      const place = places.get(nodeId)
      const chosen = k === trace.chosenSuspect && n === trace.chosenPlace
      if (!place) places.set(nodeId, { rank: trace.numbers[k]!, chosen, inCable: IN_CABLE.has(kind) })
      else if (chosen) place.chosen = true
    })))
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
