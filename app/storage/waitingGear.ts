import { keptActKey, readKeptAct, writeKeptAct, type FoundAct, type KeptAct } from '#core/window/keptAct'
import { gearShelf } from './device'

/** What was done to the library and waits on this device. */

export const keepActs = (acts: readonly KeptAct[]): Promise<boolean> => gearShelf.put(acts.map(kept => [keptActKey(kept.id), writeKeptAct(kept)]))
export const letGoOfActs = (ids: readonly string[]): Promise<void> => gearShelf.remove(ids.map(keptActKey))
export const letGoOfKey = (key: string): Promise<void> => gearShelf.remove([key])
export const allActs = async (): Promise<FoundAct[]> => (await gearShelf.all()).map(([key, text]) => readKeptAct(key, text))
