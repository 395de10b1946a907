import type { Action } from '~/composables/action'
import { SHEETS } from './sheets'
import type { SheetId } from './sheet'

/** What keys do where sheets are printed. */
export interface PaperDeeds {
  print: () => void
  toBack: () => void
  toggle: (id: SheetId) => void
  otherOrder: () => void
}

export function paperKeys(deeds: PaperDeeds): Action[] {
  return [
    { keys: ['p'], says: 'print what is chosen', group: 'about', run: deeds.print },
    { keys: ['b'], says: 'what came back on paper, or to what is printed', also: 'type in readings', group: 'about', run: deeds.toBack },
    { keys: ['o'], says: 'the walk by rooms, or by lines', group: 'about', run: deeds.otherOrder },
    ...SHEETS.map(({ id, title }, k): Action => ({ keys: [String(k + 1)], says: `with or without: ${title.toLowerCase()}`, group: 'choose', run: () => deeds.toggle(id) })),
  ]
}
