import { onBeforeUnmount, onMounted, ref, type Ref } from 'vue'

/** The width of an element as it stands, px: charts are laid out in it, so that their type keeps its size on a phone. */
export function useWidth(element: Readonly<Ref<HTMLElement | null>>, least = 240): Ref<number> {
  const width = ref(600)
  let observer: ResizeObserver | undefined
  onMounted(() => {
    observer = new ResizeObserver(([entry]) => { width.value = Math.max(least, Math.floor(entry!.contentRect.width)) })
    if (element.value) observer.observe(element.value)
  })
  onBeforeUnmount(() => observer?.disconnect())
  return width
}
