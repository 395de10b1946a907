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

const waiting = new Set<() => void>()

/** Brings all that is a frame late up now: who goes into a field of a form wants the form that is meant. */
export function catchUp(): void {
  for (const run of [...waiting]) run()
}

/**
 * What `source` gives, worked out again only when the frame that follows a change is on the screen: until then the last. For what is said beside a drawing
 * that has to follow the hand: remedies alone are some ten evaluations of a line, 10 ms of each key on a rail of forty.
 */
export function useAfterPaint<T>(source: () => T): Readonly<ShallowRef<T>> {
  const shown = shallowRef() as ShallowRef<T>
  let callOff: (() => void) | null = null
  const settle = () => {
    callOff?.()
    callOff = null
    waiting.delete(settle)
    runner()
  }
  const runner = effect(() => { shown.value = source() }, {
    scheduler: () => {
      waiting.add(settle)
      callOff ??= afterPaint(settle)
    },
  })
  onScopeDispose(() => {
    callOff?.()
    waiting.delete(settle)
    stop(runner)
  })
  return shown
}
