import { onBeforeUnmount, ref, watch, type Ref } from 'vue'

/** The width of an element as it stands, px: charts are laid out in it, so that their type keeps its size on a phone. */
export function useWidth(element: Readonly<Ref<HTMLElement | null>>, least = 240): Ref<number> {
  const width = ref(600)
  let observer: ResizeObserver | undefined
  // Inside a dialog it comes later than what holds it.
  watch(element, (now) => {
    observer?.disconnect()
    if (!now) return
    observer = new ResizeObserver(([entry]) => { width.value = Math.max(least, Math.floor(entry!.contentRect.width)) })
    observer.observe(now)
  }, { immediate: true, flush: 'post' })
  onBeforeUnmount(() => observer?.disconnect())
  return width
}
