import { readCode } from '#core/practice/code'
import { EXERCISES } from '#core/practice/exercises'
import { readRig, rigOf, type Rig } from '#core/practice/rig'
import { InputError } from '#core/quantity/inputError'
import type { Place, Truth } from './world'

/** The meter speaks for a rig of practice, too: whoever names its code in place of a job reads what hangs there. */

/** null: it is no code of a rig, and so the id of a job. */
export function rigOfCode(code: string): Rig | null {
  try {
    return rigOf(readCode(code, EXERCISES.length))
  }
  catch (error) {
    if (error instanceof InputError) return null
    throw error
  }
}

/** Coils alone: an impedance is asked with a tone, which it has not. null: it is not there. */
export function truthOfRig(rig: Rig, { nodeId, kind }: Place): Truth | null {
  if (kind !== 'coil-dcr' || nodeId === null) return null
  const value = readRig(rig, { kind, nodeId, besideId: null })?.[0]?.value
  return value?.is === 'ohm' ? value.ohm : value?.is === 'open' ? Infinity : null
}
