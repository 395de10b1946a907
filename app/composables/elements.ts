/** The element that an event is about; null where it is none. */
export const elementOf = ({ target }: Pick<Event, 'target'>): Element | null => target instanceof Element ? target : null

/** The field that an event is about; null where it is none. */
export const fieldOf = ({ target }: Pick<Event, 'target'>): HTMLInputElement | null => target instanceof HTMLInputElement ? target : null

/** What has the focus, where it can lose it. */
export const focused = (): HTMLElement | null => document.activeElement instanceof HTMLElement ? document.activeElement : null
