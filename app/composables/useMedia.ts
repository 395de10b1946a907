import { onBeforeUnmount, shallowRef, type Ref } from 'vue'

/** What can be pressed is as large as a finger: as in theme/base.css. */
export const TOUCH = '(pointer: coarse), (max-width: 760px)'
/** The pane lies over the foot of the page, the menu is a list with a field. */
export const NARROW = '(max-width: 1000px)'

/** Whether a media query holds, now and from now on. */
export function useMedia(query: string): Readonly<Ref<boolean>> {
  const media = matchMedia(query)
  const holds = shallowRef(media.matches)
  const hear = () => { holds.value = media.matches }
  media.addEventListener('change', hear)
  onBeforeUnmount(() => media.removeEventListener('change', hear))
  return holds
}
