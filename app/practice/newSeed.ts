import { MOST_SEED } from '#core/practice/code'

/** Another rig. Chance comes from the browser. */
export const newSeed = (): number => crypto.getRandomValues(new Uint32Array(1))[0]! % (MOST_SEED + 1)
