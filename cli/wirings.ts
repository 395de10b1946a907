import { InputError } from '#core/quantity/inputError'
import { findWirings, NOT_WIRED_WORDS } from '#core/match/wirings/finder'
import { readUnits } from '#core/match/wirings/readUnits'
import { wiringsReport } from '#core/match/wirings/report'
import { parseRating } from '#core/quick/parse'
import { flagsOf, numberOf } from './flags'

export const WIRINGS_TAKES = '"4 x 8" --on "300 W at 4, 180 W at 8, from 4" [--shares equal|any] [--channels 1|2|4] [--bridged yes]'

/** Every way to wire speakers on an output. */
export function wiringsVerb(...words: string[]): unknown {
  const { words: [text], flag } = flagsOf(words, WIRINGS_TAKES, { plain: 1, known: ['on', 'shares', 'channels', 'bridged'] })
  const units = readUnits(text!)
  const shares = flag('shares') ?? (units.length === 1 ? 'equal' : 'any')
  if (shares !== 'equal' && shares !== 'any') throw new InputError(`There are no shares “${shares}”.`, 0, ['equal', 'any'])
  const channels = numberOf(flag('channels'), 'channels', { least: 1, most: 4, otherwise: 1 })
  if (channels !== 1 && channels !== 2 && channels !== 4) throw new InputError('Channels are 1, 2 or 4.', 0, ['1', '2', '4'])
  const found = findWirings({ units, rating: parseRating(flag('on') ?? ''), isFair: shares === 'equal', channels, isBridged: flag('bridged') === 'yes' })
  if (typeof found === 'string') throw new InputError(NOT_WIRED_WORDS[found], 0, [])
  return wiringsReport(found)
}
