import { shortDistance, shortDistanceSchema } from '#core/check/shortDistance'
import { AWG_RANGE, CLASS5_OHM_PER_KM, readCable } from '#core/quantity/cable'
import { InputError } from '#core/quantity/inputError'
import { tidy } from '#core/line/report'
import { defineVerb } from '../verb'

export const short = defineVerb({
  does: 'how far along a pair its conductors touch, from the ohms at its beginning with everything else taken off; --leads-ohm: what the leads of the meter read alone, if they are not nulled',
  words: [],
  flags: { 'ohm': '0.42', 'awg': '[16]', 'mm2': '[1.5]', 'leads-ohm': '[0.1]' },
  example: 'short --ohm 0.42 --awg 16 --leads-ohm 0.1',
  answer: shortDistanceSchema,
  run: ({ flag, number }) => {
    const [awg, mm2] = [flag('awg'), flag('mm2')]
    if ((awg === undefined) === (mm2 === undefined)) {
      throw new InputError('One size of cable: a gauge or an area.', 0, [`--awg ${AWG_RANGE.thickest}…${AWG_RANGE.thinnest}`, `--mm2 ${[...CLASS5_OHM_PER_KM.keys()].join('|')}`])
    }
    const cable = readCable(awg === undefined ? `${mm2} mm2` : `${awg} AWG`)
    return tidy(shortDistance(number('ohm', { least: 0, most: 100 }), cable, number('leads-ohm', { least: 0, most: 10, otherwise: 0 })))
  },
})
