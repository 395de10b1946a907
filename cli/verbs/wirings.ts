import { InputError } from '#core/quantity/inputError'
import { findWirings, NOT_WIRED_WORDS } from '#core/search/wirings/finder'
import { weighted } from '#core/search/wirings/rewire'
import { readUnits } from '#core/search/wirings/readUnits'
import { wiringsReport, wiringsReportSchema } from '#core/search/wirings/report'
import { parseRating } from '#core/quick/parse'
import { defineVerb, oneOf } from '../verb'

export const wirings = defineVerb({
  does: 'every way to wire speakers on an output, with its load and what each speaker gets',
  words: ['"4 x 8"'],
  flags: { on: '"300 W at 4, 180 W at 8, from 4"', shares: '[equal|any|ratings|2:1]', channels: '[1|2|4]', bridged: '[yes|no]' },
  example: 'wirings "4 x 8" --on "300 W at 4, 180 W at 8, from 4"',
  answer: wiringsReportSchema,
  run: ({ words: [text], flag, number }) => {
    const units = readUnits(text!)
    const shares = flag('shares') ?? (units.length === 1 ? 'equal' : 'any')
    const weights = shares === 'equal' || shares === 'any' ? 'same' : shares === 'ratings' ? shares : shares.split(':').map(Number)
    if (Array.isArray(weights) && (weights.length !== units.length || !weights.every(w => w > 0 && w < 1e6))) {
      throw new InputError(`There are no shares “${shares}”: a number for each kind of speaker, as they are typed.`, 0, ['equal', 'any', 'ratings', units.map((_, k) => k + 1).join(':')])
    }
    const asked = weighted(units, weights)
    if (!asked) throw new InputError('Shares by ratings want the watts of every speaker.', 0, ['2 x 8 ohm 100 W, 2 x 4 ohm 50 W'])
    const channels = number('channels', { least: 1, most: 4, otherwise: 1 })
    if (channels !== 1 && channels !== 2 && channels !== 4) throw new InputError('Channels are 1, 2 or 4.', 0, ['1', '2', '4'])
    const isBridged = oneOf(flag('bridged'), 'answer', ['yes', 'no'] as const, 'no') === 'yes'
    const found = findWirings({ units: asked, rating: parseRating(flag('on') ?? ''), isFair: shares !== 'any', channels, isBridged })
    if (typeof found === 'string') throw new InputError(NOT_WIRED_WORDS[found], 0, [])
    return wiringsReport(found)
  },
})
