import { InputError } from '#core/quantity/inputError'
import { coverReport, coverReportSchema } from '#core/room/cover'
import { DEFAULT_OVERLAP, OVERLAP_IDS } from '#core/room/coverage'
import { defineVerb, numberOf, oneOf } from '../verb'

export const cover = defineVerb({
  does: 'how many ceiling speakers a floor wants, where, and at what tap; sensitivity is for one watt at a metre',
  words: [],
  flags: {
    'length-m': '18', 'width-m': '9', 'height-m': '3.6', 'ears-m': '1.2', 'angle-deg': '90', 'overlap': `[${OVERLAP_IDS.join('|')}]`, 'sensitivity-db': '89', 'target-db': '76',
    'taps': '[1.25,2.5,5,10]',
  },
  example: 'cover --length-m 18 --width-m 9 --height-m 3.6 --ears-m 1.2 --angle-deg 90 --overlap least --sensitivity-db 89 --target-db 76',
  answer: coverReportSchema,
  run: ({ flag, number }) => {
    const of = (name: string, least: number, most: number) => number(name, { least, most })
    const overlap = oneOf(flag('overlap'), 'overlap', OVERLAP_IDS, DEFAULT_OVERLAP)
    const tapsW = (flag('taps')?.split(',') ?? []).map(text => numberOf(text, 'taps', { least: 0.01, most: 10_000 }))
    const [heightM, earsM] = [of('height-m', 0.5, 100), of('ears-m', 0, 100)]
    const report = coverReport(of('length-m', 0.5, 1000), of('width-m', 0.5, 1000), {
      heightM, earsM, coverageDeg: of('angle-deg', 1, 360), overlap, wattDb: of('sensitivity-db', 40, 130), targetDb: of('target-db', 20, 140), tapsW,
    })
    if (report) return report
    throw heightM <= earsM
      ? new InputError('The ceiling must be above the ears.', 0, ['--height-m 3.6 --ears-m 1.2'])
      : new InputError('Of this angle and height no grid of up to 400 speakers can be laid: below 180°, and not so close.', 0, ['--angle-deg 90'])
  },
})
