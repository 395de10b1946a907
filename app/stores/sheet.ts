import { computed, shallowRef, watch } from 'vue'
import { defineStore } from 'pinia'
import { proveLine, type LineProof } from '#core/check/proof'
import type { Output } from '#core/job/schema'
import { findOutput, findPlace, outputsOf } from '#core/job/tree'
import { makeEvaluator, type LineEvaluation } from '#core/match/evaluate'
import { lineStateOf, stateSentence } from '#core/match/jobState'
import { remediesFor, type Remedy } from '#core/match/remedies/index'
import type { Finding } from '#core/match/finding'
import { rankInSteps, type Suspect } from '#core/trace/rank'
import { newId } from '~/api/ids'
import { useJobStore } from './job'

export type PaneMode = 'findings' | 'change' | 'check' | 'trace'
export interface Selection { outputId: string | null, nodeId: string | null }

/** Suspects weaker than this are not shown. */
const LEAST_SUSPICION = 0.005
const MOST_SUSPECTS = 8
/** Longest stretch of ranking between two frames. */
const SLICE_MS = 12

/** What is computed from the opened job, and what is selected in it. */
export const useSheetStore = defineStore('sheet', () => {
  const store = useJobStore()
  const evaluate = makeEvaluator()
  const selection = shallowRef<Selection>({ outputId: null, nodeId: null })
  const mode = shallowRef<PaneMode>('findings')
  const chosenSuspect = shallowRef(0)

  const lines = computed((): LineEvaluation[] => store.job ? evaluate(store.job) : [])
  const lineById = computed(() => new Map(lines.value.map(l => [l.outputId, l])))

  // A line's proof keeps its identity while neither its wiring nor any of its own readings changes: its row is then not drawn again.
  interface Remembered { output: Output, readings: unknown, repairs: unknown, proof: LineProof }
  const remembered = new Map<string, Remembered>()
  const proofs = computed((): ReadonlyMap<string, LineProof> => {
    const { job } = store
    if (!job) return new Map()
    return new Map(lines.value.map((line) => {
      const before = remembered.get(line.outputId)
      const [readings, repairs] = [job.readings.ofLine(line.outputId), job.repairs.ofLine(line.outputId)]
      if (before && before.output === line.output && before.readings === readings && before.repairs === repairs) return [line.outputId, before.proof]
      const proof = proveLine(job, line.output, line.predicted)
      remembered.set(line.outputId, { output: line.output, readings, repairs, proof })
      return [line.outputId, proof]
    }))
  })

  const states = computed(() => lines.value.map(line => lineStateOf(line, proofs.value.get(line.outputId)!)))
  const sentence = computed(() => stateSentence(states.value))

  const line = computed(() => lineById.value.get(selection.value.outputId ?? '') ?? null)
  const proof = computed(() => proofs.value.get(selection.value.outputId ?? '') ?? null)
  const place = computed(() => store.job && selection.value.nodeId !== null ? findPlace(store.job, selection.value.nodeId) : null)
  const speaker = computed(() => place.value?.branch.node.kind === 'speaker' ? place.value.branch.node : null)

  /** Findings of the selected line with what can be done, those of the selected speaker first. */
  const findings = computed((): { finding: Finding, remedies: Remedy[] }[] => {
    const { job } = store
    const current = line.value
    if (!job || !current) return []
    const { nodeId } = selection.value
    const own = (f: Finding) => f.nodeId !== null && f.nodeId === nodeId ? 0 : 1
    return [...current.findings].sort((a, b) => own(a) - own(b)).map(finding => ({ finding, remedies: remediesFor({ job, line: current, finding, newId }) }))
  })
  const remedies = computed(() => findings.value.flatMap(f => f.remedies))

  /** Ranked faults of the selected line; worked out only while someone looks, in slices that leave the page its frames. */
  const suspects = shallowRef<Suspect[]>([])
  const tracing = shallowRef(false)
  /** Share of the faults tried out; null when all are. */
  const tried = shallowRef<number | null>(null)
  let newest = 0
  watch([tracing, line, proof], async () => {
    // What is under way for an older state of the line ends here: it sees that it is not the newest any more.
    const mine = ++newest
    if (!tracing.value || !line.value || !proof.value) {
      suspects.value = []
      tried.value = null
      return
    }
    const steps = rankInSteps(line.value.output, proof.value)
    for (;;) {
      const until = performance.now() + SLICE_MS
      let step = steps.next()
      while (!step.done && performance.now() < until) step = steps.next()
      if (step.done) {
        suspects.value = step.value.filter(s => s.probability >= LEAST_SUSPICION).slice(0, MOST_SUSPECTS)
        tried.value = null
        return
      }
      tried.value = step.value
      await new Promise(resolve => setTimeout(resolve))
      if (mine !== newest) return
    }
  }, { immediate: true })

  function select(outputId: string | null, nodeId: string | null = null): void {
    if (selection.value.outputId === outputId && selection.value.nodeId === nodeId) return
    if (selection.value.outputId !== outputId) chosenSuspect.value = 0
    selection.value = { outputId, nodeId }
  }

  // What is selected may be gone: removed here, undone, or taken away in another window.
  watch(() => store.job, (job) => {
    const { outputId, nodeId } = selection.value
    if (!job || outputId === null) return
    const found = nodeId === null ? null : findPlace(job, nodeId)
    if (found) {
      if (found.output.id !== outputId) selection.value = { outputId: found.output.id, nodeId }
      return
    }
    if (!findOutput(job, outputId)) selection.value = { outputId: outputsOf(job)[0]?.id ?? null, nodeId: null }
    else if (nodeId !== null) selection.value = { outputId, nodeId: null }
  })

  function reset(): void {
    remembered.clear()
    selection.value = { outputId: null, nodeId: null }
    mode.value = 'findings'
  }

  return {
    selection, mode, chosenSuspect, lines, lineById, proofs, states, sentence, line, proof, place, speaker, findings, remedies, suspects, tracing, tried,
    select, reset,
  }
})
