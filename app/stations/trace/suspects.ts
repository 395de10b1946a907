import { computed, shallowRef, toRaw, watch } from 'vue'
import { defineStore } from 'pinia'
import { isWrongNow as readsWrongNow, stillTelling } from '#core/trace/earlier'
import { groupSuspects } from '#core/trace/groups'
import { orderOf, standingBy, type Standing, type Tool } from '#core/trace/next/minutes'
import type { Suspect } from '#core/trace/rank'
import { riskByReading, riskOf, type SwitchOnRisk } from '#core/trace/switchOn'
import type { TraceAsked, TraceView } from '#core/trace/trace'
import { givenBy } from '#core/trace/given'
import { outputsOf } from '#core/job/tree'
import { useJobStore } from '~/stores/job'
import { useSelectionStore } from '~/stores/selection'
import { askingOf } from './asking'
import { numbersOf, shownGroups } from './shown'
import type { TraceQuestion, TraceSaid } from './trace.worker'

/**
 * What may be wrong on the selected line: worked out beside the page, only while someone looks; what is under way for an older state of the line is called
 * off.
 */
export const useTraceStore = defineStore('trace', () => {
  const store = useJobStore()
  const selected = useSelectionStore()
  const view = shallowRef<TraceView | null>(null)
  /** Groups of faults of which every member is shown, by their place. */
  const opened = shallowRef<ReadonlySet<number>>(new Set())
  const all = computed(() => view.value ? groupSuspects(view.value.ranking.suspects) : [])
  const groups = computed(() => shownGroups(all.value, opened.value))
  /** The chosen row, and which of its places. */
  const chosenSuspect = shallowRef(0)
  const chosenPlace = shallowRef(0)
  watch(chosenSuspect, () => { chosenPlace.value = 0 })
  const tracing = shallowRef(false)
  /** Checks are being taken: whether the amplifier may be switched on is asked even while nobody looks at suspects. */
  const checking = shallowRef(false)
  /** Share of what is tried; null when all is. */
  const tried = shallowRef<number | null>(null)
  const problem = shallowRef('')
  /** All that is shown, in order, and the number of each: what a place on the rail stands for. */
  const rows = computed(() => groups.value.flatMap(g => g.rows))
  const numbers = computed(() => numbersOf(groups.value))
  const ranked = computed((): readonly Suspect[] | null => view.value?.ranking.suspects ?? null)

  /** Tools that are not at hand, and tests that somebody cannot do, of this line as it was read. */
  const without = shallowRef<readonly Tool[]>([])
  const cannot = shallowRef<readonly string[]>([])

  watch(() => selected.selection.outputId, () => {
    chosenSuspect.value = 0
    cannot.value = []
  })
  /** Why the amplifier must not be switched on to the line that is looked at; null where nothing says so. */
  const risk = computed((): SwitchOnRisk | null => selected.line && selected.proof ? riskOf(selected.line.output, selected.proof, ranked.value) : null)
  /** What somebody answered for: this line with these readings and no other. */
  const answered = shallowRef('')
  const asRead = computed(() => `${selected.selection.outputId} ${[...selected.proof?.standing.values() ?? []].map(j => j.reading.id).join(' ')}`)
  const mayBeOn = computed(() => risk.value === null || answered.value === asRead.value)

  const order = computed(() => orderOf(selected.line?.speakers ?? []))
  /** Where somebody stands: where the last reading was taken, with the amplifier as that one needs it. */
  const standing = computed((): Standing => {
    const readings = [...selected.proof?.standing.values() ?? []].map(j => j.reading).sort((a, b) => a.at < b.at ? -1 : a.at > b.at ? 1 : 0)
    return standingBy(readings, order.value, without.value)
  })

  /** What was read of the line and still tells: before a repair, what it had no part in. */
  const telling = computed(() => selected.line && selected.proof ? stillTelling(selected.line.output, selected.proof).standing : [])
  /** Something that describes the line as it is now reads wrong: only then is anything marked. */
  const isWrongNow = computed(() => Boolean(selected.line && selected.proof && readsWrongNow(selected.line.output, selected.proof)))

  let worker: Worker | null = null
  let isReady = false
  /** Asked while the worker was at something: the last of them is asked next. */
  let waiting: TraceAsked | null = null
  function end(): void {
    worker?.terminate()
    worker = null
    waiting = null
    tried.value = null
  }
  let before: unknown[] = []
  watch([tracing, checking, () => selected.line, () => selected.proof, standing, cannot, answered], ([, , line, proof]) => {
    problem.value = ''
    const isSame = line === before[0] && proof === before[1]
    const isWanted = (tracing.value || (checking.value && (selected.proof?.wrong ?? 0) > 0)) && Boolean(line && proof)
    // What is shown of this line stays until what is worked out anew is there, so that nothing jumps.
    if (!isSame) {
      before = [line, proof]
      view.value = null
      opened.value = new Set()
    }
    const does = askingOf({ isWanted, isSame, worker: worker === null ? 'none' : isReady ? 'ready' : 'busy' })
    if (does === 'end') {
      end()
      view.value = null
      return
    }
    const { output } = selected.line!
    const asked: TraceAsked = {
      standing: standing.value, cannot: cannot.value, isBarred: riskByReading(output, selected.proof!) !== null, isAnswered: answered.value === asRead.value,
      isWrong: isWrongNow.value,
    }
    if (does === 'ask') ask({ asked })
    else if (does === 'wait') waiting = asked
    else {
      if (does === 'begin') {
        end()
        begin()
      }
      ask({ given: givenBy(output, selected.proof!, store.job ? outputsOf(store.job) : []), asked })
    }
  }, { immediate: true })

  function ask(question: TraceQuestion): void {
    isReady = false
    waiting = null
    tried.value = 'given' in question ? 0 : TRIED
    // What a store holds may be proxies, which no worker can be given.
    worker!.postMessage(plain(question))
  }
  function begin(): void {
    worker = new Worker(new URL('./trace.worker.ts', import.meta.url), { type: 'module' })
    worker.onmessage = ({ data }: MessageEvent<TraceSaid>) => {
      if ('problem' in data) {
        problem.value = `The trace came to no end: ${data.problem}`
        end()
      }
      else if ('done' in data) tried.value = data.done
      else {
        isReady = data.isWhole
        // What was asked meanwhile makes this answer an old one.
        if (isReady && waiting) return ask({ asked: waiting })
        view.value = data.view
        if (isReady) tried.value = null
      }
    }
    worker.onerror = () => {
      problem.value = 'The trace could not be loaded: it comes from the server, which is away.'
      end()
    }
  }

  const openGroup = (k: number) => { opened.value = new Set([...opened.value, k]) }

  return {
    view, groups, openGroup, rows, numbers, chosenSuspect, chosenPlace, tracing, checking, tried, problem, risk, mayBeOn, standing, order, without, cannot,
    isWrongNow, telling,
    answer: () => { answered.value = asRead.value },
  }
})

/** All is tried out: what to read next is what is left to be worked out. */
const TRIED = 0.9

function plain(question: TraceQuestion): TraceQuestion {
  const asked = JSON.parse(JSON.stringify(question.asked)) as TraceAsked
  if (!('given' in question)) return { asked }
  const { lessons, ...given } = question.given
  const learnt = new Map([...lessons].map(([hz, of]) => [hz, new Map([...of].map(([key, lesson]) => [key, { ...lesson }]))]))
  return { asked, given: { ...JSON.parse(JSON.stringify(toRaw(given))) as typeof given, lessons: learnt } }
}
