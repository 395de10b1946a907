import { onMounted, shallowRef, type Ref } from 'vue'
import type { D3DragEvent } from 'd3-drag'
import type { MoveTo } from '#core/hands/many/many'
import { dragging } from '~/composables/dragging'
import { useMenuPress } from '~/composables/useMenuPress'
import { elementOf } from '~/composables/elements'

/** Where what is held can be put down by hand. */
type DropPlace = Exclude<MoveTo, { behindId: string }>

/** A mouse that moves less than this has only been pressed. */
const CLICK_PX = 6

interface Hands {
  /** Takes hold of a speaker: what is chosen goes along if it is one of them. */
  hold: (nodeIds: readonly string[]) => void
  drop: (place: DropPlace) => void
  frame: (nodeIds: string[]) => void
  menu: (event: Event, place: { outputId: string, nodeIds: readonly string[] }) => void
}

const tagAt = (target: EventTarget | null) => target instanceof Element ? target.closest<SVGGElement>('[data-node]') : null
/** What a tag stands for: one speaker, equals drawn as one, or a control with all that hangs behind it. */
const idsOf = ({ dataset }: SVGGElement): string[] => dataset.nodes?.split(' ') ?? [dataset.node!]
const isBox = ({ dataset }: SVGGElement) => dataset.box !== undefined
const railAt = (target: EventTarget | null) => target instanceof Element ? target.closest<HTMLElement>('[data-output]') : null

/**
 * The mouse and the finger on the rails: tags dragged along a rail or to another, a frame drawn around some, the menu by the right
 * button or a long press. A finger does not drag: it scrolls; it moves tags by the action of that name.
 */
export function useSheetPointer(rails: Ref<HTMLElement | null>, hands: Hands) {
  const frame = shallowRef<{ left: number, top: number, width: number, height: number } | null>(null)
  /** What is held, beside the mouse, and where it would go. */
  const held = shallowRef<{ x: number, y: number, place: DropPlace | null } | null>(null)

  type Subject = { x: number, y: number, nodeIds: string[] }
  type Dragged = D3DragEvent<HTMLElement, unknown, Subject>
  let isMoving = false

  const behaviourOf = (drag: typeof import('d3-drag')['drag']) => drag<HTMLElement, unknown, Subject>()
    .clickDistance(CLICK_PX)
    .filter((event: MouseEvent) => !event.button && !event.ctrlKey && !event.metaKey && !event.shiftKey && !elementOf(event)?.closest('button,a,input'))
    .touchable(false)
    .container(() => document.documentElement)
    .subject((event: Dragged): Subject => {
      const { clientX: x, clientY: y, target } = event.sourceEvent as MouseEvent
      const tag = tagAt(target)
      return { x, y, nodeIds: tag ? idsOf(tag) : [] }
    })
    .on('drag', ({ subject, sourceEvent }: Dragged) => {
      const { clientX: x, clientY: y } = sourceEvent as MouseEvent
      if (!isMoving && Math.hypot(x - subject.x, y - subject.y) < CLICK_PX) return
      if (!isMoving && subject.nodeIds.length > 0) hands.hold(subject.nodeIds)
      isMoving = true
      if (subject.nodeIds.length > 0) held.value = { x, y, place: placeUnder(x, y) }
      else frame.value = { left: Math.min(x, subject.x), top: Math.min(y, subject.y), width: Math.abs(x - subject.x), height: Math.abs(y - subject.y) }
    })
    .on('end', () => {
      if (held.value?.place) hands.drop(held.value.place)
      if (frame.value) hands.frame(within(frame.value))
      isMoving = false
      held.value = null
      frame.value = null
    })

  function placeUnder(x: number, y: number): DropPlace | null {
    const under = document.elementFromPoint(x, y)
    const tag = tagAt(under)
    if (tag) {
      const box = tag.getBoundingClientRect()
      if (isBox(tag)) return x > box.left + box.width / 2 ? { beforeId: idsOf(tag)[0]! } : { beforeId: tag.dataset.node! }
      return x > box.left + box.width / 2 ? { afterId: idsOf(tag).at(-1)! } : { beforeId: idsOf(tag)[0]! }
    }
    const rail = railAt(under)
    return rail ? { outputId: rail.dataset.output! } : null
  }

  function within(box: { left: number, top: number, width: number, height: number }): string[] {
    return [...rails.value?.querySelectorAll<SVGGElement>('[data-node]:not([data-box])') ?? []].filter((tag) => {
      const { left, right, top, bottom } = tag.querySelector('.outline')!.getBoundingClientRect()
      return right > box.left && left < box.left + box.width && bottom > box.top && top < box.top + box.height
    }).flatMap(idsOf)
  }

  function openMenu(event: Event): boolean {
    const rail = railAt(event.target)
    if (!rail) return false
    const tag = tagAt(event.target)
    hands.menu(event, { outputId: rail.dataset.output!, nodeIds: !tag ? [] : isBox(tag) ? [tag.dataset.node!] : idsOf(tag) })
    return true
  }

  useMenuPress(rails, openMenu)
  onMounted(async () => {
    const { drag, select } = await dragging()
    if (rails.value) select(rails.value).call(behaviourOf(drag))
  })

  return { frame, held }
}
