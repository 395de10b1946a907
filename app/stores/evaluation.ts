import { computed, shallowRef, watch } from 'vue'
import { defineStore } from 'pinia'
import { proveLine, type LineProof } from '#core/check/proof'
import type { Output } from '#core/job/schema'
import { makeEvaluator, type Evaluated } from '#core/line/evaluate'
import { lineStateOf, stateSentence } from '#core/line/jobState'
import { useJobStore } from './job'

/** Time for evaluating in one go; drawing what it gave comes on top, and all of it stays within a blink. */
const BUDGET_MS = 12
const NOTHING: Evaluated = { lines: [], isWhole: true }

/** What is computed from the opened job: every line, what is proved of it, and the state of the whole. */
export const useEvaluationStore = defineStore('evaluation', () => {
  const store = useJobStore()
  let evaluator = { jobId: '', evaluate: makeEvaluator() }
  let first: string | null = null

  // A large job comes a stint a frame: two thousand speakers in one go held the page for a fifth of a second.
  const stints = shallowRef(0)
  const evaluated = computed(() => {
    void stints.value
    if (!store.job) return NOTHING
    // Another job may use the same names for its lines.
    if (evaluator.jobId !== store.id) evaluator = { jobId: store.id, evaluate: makeEvaluator() }
    return evaluator.evaluate(store.job, { budgetMs: BUDGET_MS, first })
  })
  watch(evaluated, ({ isWhole }) => {
    if (!isWhole) requestAnimationFrame(() => setTimeout(() => { stints.value++ }))
  }, { immediate: true })
  const lines = computed(() => evaluated.value.lines)
  const isWhole = computed(() => evaluated.value.isWhole)
  const lineById = computed(() => new Map(lines.value.map(l => [l.outputId, l])))

  // A line's proof keeps its identity while neither its wiring nor any of its own readings changes: its row is then not drawn again.
  interface Remembered { readings: unknown, repairs: unknown, proof: LineProof }
  const remembered = new WeakMap<Output, Remembered>()
  const proofs = computed((): ReadonlyMap<string, LineProof> => {
    const { job } = store
    if (!job) return new Map()
    return new Map(lines.value.map((line) => {
      const before = remembered.get(line.output)
      const [readings, repairs] = [job.readings.ofLine(line.outputId), job.repairs.ofLine(line.outputId)]
      if (before && before.readings === readings && before.repairs === repairs) return [line.outputId, before.proof]
      const proof = proveLine(job, line.output, line.predicted)
      remembered.set(line.output, { readings, repairs, proof })
      return [line.outputId, proof]
    }))
  })

  const states = computed(() => lines.value.map(line => lineStateOf(line, proofs.value.get(line.outputId)!)))
  const sentence = computed(() => isWhole.value ? stateSentence(states.value) : 'Working it out…')

  return { lines, isWhole, lineById, proofs, states, sentence, beginWith: (outputId: string | null) => { first = outputId } }
})
