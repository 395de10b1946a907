import { computed, shallowRef, watch } from 'vue'
import { defineStore } from 'pinia'
import { askedOf } from '#core/check/asked'
import type { LineProof } from '#core/check/proof'
import { makeProver } from '#core/check/proveJob'
import { makeEvaluator, type Evaluated } from '#core/line/evaluate'
import { stateSentence } from '#core/line/jobState'
import { lineStateOf } from '#core/line/lineState'
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

  // A line's proof keeps its identity while nothing of it changes: its row is then not drawn again.
  const prove = makeProver()
  const proofs = computed((): ReadonlyMap<string, LineProof> => store.job ? prove(store.job, lines.value, askedOf(store.job)) : new Map())

  const states = computed(() => lines.value.map(line => lineStateOf(line, proofs.value.get(line.outputId)!)))
  const sentence = computed(() => isWhole.value ? stateSentence(states.value, store.job?.spaces.length) : 'Working it out…')

  return { lines, isWhole, lineById, proofs, states, sentence, beginWith: (outputId: string | null) => { first = outputId } }
})
