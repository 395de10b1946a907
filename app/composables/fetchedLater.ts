import { defineAsyncComponent, type AsyncComponentLoader, type Component } from 'vue'

/**
 * A part of a page that is fetched when it is first shown. The page does not wait for it: left to itself, vue holds a page back until all such parts
 * are there (measured: the first rail of 2,000 speakers came a sixth of a second later, with nine rails laid out at once).
 */
export const fetchedLater = <T extends Component>(loader: AsyncComponentLoader<T>): T => defineAsyncComponent({ loader, suspensible: false })
