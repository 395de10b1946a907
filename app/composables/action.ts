/** What one is doing when one asks for an action: the headings of the key list and of the menu. */
export const ACTION_GROUPS = ['about', 'choose', 'change', 'wire', 'read', 'build', 'job'] as const
export type ActionGroup = typeof ACTION_GROUPS[number]
export const GROUP_WORDS: Record<ActionGroup, string> = {
  about: 'Getting about', choose: 'Choosing several', change: 'Changing', wire: 'Wiring', read: 'Reading and tracing', build: 'Building', job: 'The job and the page',
}

/** What an action is done to. */
export type ActionTarget = 'speaker' | 'many' | 'rail' | 'control' | 'model' | 'space' | 'place' | 'places'

/**
 * One thing that can be done, however it is asked for: by a key, by a word in the row of actions, from the menu at a tag. Key help, row,
 * menu and screen reader all read this, so that they cannot differ.
 */
export interface Action {
  /** Keys as pressed: "u", "U", "?", "ArrowLeft", "Shift+ArrowLeft", "Ctrl+z". */
  keys: readonly string[]
  says: string
  group: ActionGroup
  /** How its keys are shown, where their names are not what stands on the keyboard. */
  shown?: string
  /** What it can be done to from the menu and the row; left out where it is not about a tag or rail. */
  to?: readonly ActionTarget[]
  /** It does nothing to anything else: its key may mean another thing there. */
  isOnlyTo?: true
  /** Why it cannot be done just now; null where it can. Said where actions are looked for. */
  cannot?: () => string | null
  /** Other words that people look for it by. */
  also?: string
  /** Its word in the row of actions; left out where it stands in the menu only. */
  row?: string
  /** What it is called where it is done to one of these: a tap of a speaker is the level of a control. */
  as?: Partial<Record<ActionTarget, { says: string, row?: string }>>
  /** The browser does it on its key and tells the page (copy, paste); `run` is for the menu. */
  isBrowsers?: true
  run: (event: Pick<KeyboardEvent, 'key'>) => void
}

/** What can be done to a target, in the order of the list; `inRow`: only what has a word in the row. */
export function actionsFor(actions: readonly Action[], target: ActionTarget, inRow = false): Action[] {
  return actions.filter(a => a.to?.includes(target)).map(a => a.as?.[target] ? { ...a, ...a.as[target] } : a).filter(a => !inRow || a.row !== undefined)
}

/**
 * What a key does where something is chosen. Keys belong to a scope: the same letter may do one thing to a speaker and another to a rail, and what
 * is about the chosen thing comes before what holds for the whole station.
 */
export function actionOf(actions: readonly Action[], key: string, target: ActionTarget | null): Action | null {
  const all = actions.filter(action => action.keys.includes(key))
  const about = all.find(action => target !== null && action.to?.includes(target))
  return about ?? all.find(action => !action.isOnlyTo) ?? null
}

/** An action asked for without a key: its first one is taken as pressed. */
export function runAction(action: Action): void {
  action.run({ key: action.keys[0]!.replace(/^(\w+\+)+/, '') })
}

const SHOWN: Record<string, string> = {
  'ArrowLeft': '←', 'ArrowRight': '→', 'ArrowUp': '↑', 'ArrowDown': '↓', 'Shift+ArrowLeft': '⇧ ←', 'Shift+ArrowRight': '⇧ →', 'Ctrl+ArrowLeft': 'Ctrl ←', 'Ctrl+ArrowRight': 'Ctrl →',
  'Ctrl+z': 'Ctrl z', 'Ctrl+Z': 'Ctrl ⇧ z', 'Ctrl+c': 'Ctrl c', 'Ctrl+v': 'Ctrl v', 'Escape': 'Esc', 'Delete': 'Del',
}
/** What stands on the keys of an action. */
export function keysShown({ keys, shown }: Pick<Action, 'keys' | 'shown'>): string[] {
  return shown ? [shown] : keys.map(key => SHOWN[key] ?? key)
}
