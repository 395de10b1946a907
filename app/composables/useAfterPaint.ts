import { effect, onScopeDispose, shallowRef, stop, type ShallowRef } from 'vue'

/** Runs when the next frame is on the screen; in a window that is not shown, soon. Gives what calls it off. */
export function afterPaint(run: () => void): () => void {
  let timer: ReturnType<typeof setTimeout> | undefined
  // No frame comes while a window is hidden.
  if (document.hidden) timer = setTimeout(run)
  const frame = document.hidden ? 0 : requestAnimationFrame(() => { timer = setTimeout(run) })
  return () => {
    cancelAnimationFrame(frame)
    clearTimeout(timer)
  }
}

/**
 * What `source` gives, worked out again only when the frame that follows a change is on the screen: until then the last. For what is said beside a drawing
 * that has to follow the hand: remedies alone are some ten evaluations of a line, 10 ms of each key on a rail of forty.
 */
export function useAfterPaint<T>(source: () => T): Readonly<ShallowRef<T>> {
  const shown = shallowRef() as ShallowRef<T>
  let callOff: (() => void) | null = null
  const runner = effect(() => { shown.value = source() }, {
    scheduler: () => {
      callOff ??= afterPaint(() => {
        callOff = null
        runner()
      })
    },
  })
  onScopeDispose(() => {
    callOff?.()
    stop(runner)
  })
  return shown
}
