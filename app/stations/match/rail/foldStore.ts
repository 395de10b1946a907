import { computed, shallowRef, watch } from 'vue'
import { defineStore } from 'pinia'
import type { LineProof } from '#core/check/proof'
import type { LineEvaluation } from '#core/line/evaluate'
import { useEvaluationStore } from '~/stores/evaluation'
import { useJobStore } from '~/stores/job'
import { useSelectionStore } from '~/stores/selection'
import { closedFolds, isFolding, orderOf, stopsOf, stretchesOf, type FoldWish } from './folds'
import { rowsOfRail } from './rail'
import { useMatchPaneStore } from '../pane'
import { useTraceStore } from '~/stations/trace/suspects'

const NONE: readonly string[][] = []

/** Which equals of which rail are drawn as one tag in this window. */
export const useFoldStore = defineStore('folds', () => {
  const store = useJobStore()
  const evaluation = useEvaluationStore()
  const selected = useSelectionStore()
  const matchPane = useMatchPaneStore()
  const trace = useTraceStore()
  /** Width of the rails, px; they wrap by it. */
  const railWidth = shallowRef(720)
  const wishes = shallowRef<ReadonlyMap<string, FoldWish>>(new Map())
  watch(() => store.id, () => { wishes.value = new Map() })

  // A line's stretches are found once for its wiring and what is proved of it: a key press elsewhere leaves them as they are.
  const remembered = new WeakMap<LineEvaluation, { proof: LineProof, stretches: string[][] }>()
  function stretches(line: LineEvaluation): string[][] {
    const proof = evaluation.proofs.get(line.outputId)!
    const before = remembered.get(line)
    if (before?.proof === proof) return before.stretches
    const found = stretchesOf(line, proof)
    remembered.set(line, { proof, stretches: found })
    return found
  }
  const counted = new WeakMap<LineEvaluation, { width: number, rows: number }>()
  function rowsOf(line: LineEvaluation): number {
    const before = counted.get(line)
    if (before?.width === railWidth.value) return before.rows
    const rows = rowsOfRail(line.output.wiring, railWidth.value)
    counted.set(line, { width: railWidth.value, rows })
    return rows
  }
  const isFolded = (line: LineEvaluation) => isFolding(rowsOf(line), wishes.value.get(line.outputId))

  const suspects = computed(() => new Set(matchPane.mode === 'trace' ? trace.rows.flatMap(row => row.suspects.flatMap(s => s.faults.flatMap(f => f.nodeId ?? []))) : []))
  /** Folds as they are drawn; a rail where nothing of it is selected keeps the same list. */
  const foldsByRail = computed((): ReadonlyMap<string, readonly string[][]> => new Map(evaluation.lines.map((line) => {
    const all = isFolded(line) ? stretches(line) : NONE
    const isTouched = selected.selection.outputId === line.outputId || selected.isMany
    if (all.length === 0 || !isTouched) return [line.outputId, all]
    return [line.outputId, closedFolds(all, { nodeId: selected.selection.nodeId, chosen: selected.chosen, suspects: suspects.value })]
  })))
  const foldsOf = (outputId: string) => foldsByRail.value.get(outputId) ?? NONE

  return {
    railWidth, foldsOf,
    stops: (line: LineEvaluation) => stopsOf(orderOf(line.output.wiring), foldsOf(line.outputId)),
    /** The fold that a speaker is drawn in; null where it has its own tag. */
    foldAt: (outputId: string, nodeId: string) => foldsOf(outputId).find(ids => ids.includes(nodeId)) ?? null,
    /** What can be asked of a rail: nothing where it has no equals side by side. */
    state: (line: LineEvaluation): 'folded' | 'open' | 'none' => stretches(line).length === 0 ? 'none' : isFolded(line) ? 'folded' : 'open',
    toggle: (line: LineEvaluation) => {
      wishes.value = new Map(wishes.value).set(line.outputId, isFolded(line) ? 'open' : 'folded')
    },
  }
})
