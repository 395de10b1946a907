/** A key as pressed: "u", "U", "?", "ArrowLeft", "Shift+ArrowLeft", "Ctrl+z". */
export interface KeyBinding { keys: string[], says: string, shown?: string, run: (event: KeyboardEvent) => void }
