import Select from 'primevue/select'

/** What each key does to an open or closed list: names of the library's own methods. */
const KEYS: Record<string, string> = {
  ArrowDown: 'onArrowDownKey', ArrowUp: 'onArrowUpKey', ArrowLeft: 'onArrowLeftKey', ArrowRight: 'onArrowLeftKey', Home: 'onHomeKey', End: 'onEndKey',
  PageDown: 'onPageDownKey', PageUp: 'onPageUpKey', Space: 'onSpaceKey', Enter: 'onEnterKey', NumpadEnter: 'onEnterKey', Escape: 'onEscapeKey', Tab: 'onTabKey',
}

interface Inside {
  disabled: boolean
  overlayVisible: boolean
  clicked: boolean
  show: () => void
  searchOptions: (event: KeyboardEvent, letter: string) => void
}

/**
 * The library's choice list, with its keys mended: under the name of a phone's browser it swallows every key but Enter, and that one it takes twice, so
 * that nobody gets out of it by Tab (4.5.5). Here a key does the same wherever it is pressed.
 */
export default {
  name: 'Select',
  extends: Select,
  methods: {
    onKeyDown(this: Inside & Record<string, (event: KeyboardEvent) => void>, event: KeyboardEvent) {
      if (this.disabled) return event.preventDefault()
      const method = KEYS[event.code]
      if (method) this[method]!(event)
      else if (!event.metaKey && !event.ctrlKey && event.key.length === 1) {
        if (!this.overlayVisible) this.show()
        this.searchOptions(event, event.key)
      }
      this.clicked = false
    },
  },
} as unknown as typeof Select
