import { computed, nextTick, onBeforeUnmount, shallowRef, watch } from 'vue'
import { useEvaluationStore } from '~/stores/evaluation'
import { useSelectionStore } from '~/stores/selection'

/** Rails drawn before the first frame; the rest of what a window shows comes in the next ones. */
const FIRST = 1
/** And so many more a frame: as many as fit, by how long those of the frame before took. A rail of forty tags takes a frame by itself. */
const MOST_MORE = 8
const moreThan = (now: number, tookMs: number) => tookMs > 15 ? 1 : tookMs < 6 ? Math.min(MOST_MORE, 2 * now) : now

/**
 * Draws the rails of a large job by and by: fifty rails of forty tags at once held the page for over half a second, and only a
 * few are in sight. The selected rail is always drawn.
 */
export function useGradualRails() {
  const evaluation = useEvaluationStore()
  const selected = useSelectionStore()
  const count = shallowRef(FIRST)
  const order = computed(() => new Map(evaluation.lines.map((line, k) => [line.outputId, k])))
  let frame = 0
  let isDrawing = false
  let step = 1

  function more(): void {
    isDrawing = count.value < order.value.size
    if (!isDrawing) return
    // After the frame, not in it: keys and clicks come in between.
    frame = requestAnimationFrame(() => setTimeout(async () => {
      const from = performance.now()
      count.value += step
      await nextTick()
      step = moreThan(step, performance.now() - from)
      more()
    }))
  }
  watch(() => order.value.size, () => { if (!isDrawing) more() }, { immediate: true })
  onBeforeUnmount(() => {
    cancelAnimationFrame(frame)
    count.value = Infinity
  })

  return { isDrawn: (outputId: string) => (order.value.get(outputId) ?? Infinity) < count.value || selected.selection.outputId === outputId }
}
