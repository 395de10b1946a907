import { seeded } from '#core/quantity/seeded'
import { clipReport, clipReportSchema } from '#core/programme/clip'
import { MATERIAL_IDS } from '#core/programme/material'
import { defineVerb, oneOf } from '../verb'

export const clip = defineVerb({
  does: 'what an amplifier gives that is driven into clipping, and what of it reaches a high-frequency unit',
  words: [],
  flags: { 'rated-w': '100', 'overdrive-db': '6', 'crossover-hz': '2500', 'material': MATERIAL_IDS.join('|'), 'seed': '[1]' },
  example: 'clip --rated-w 100 --overdrive-db 6 --crossover-hz 2500 --material open',
  answer: clipReportSchema,
  run: ({ flag, number }) => clipReport({
    material: oneOf(flag('material'), 'material', MATERIAL_IDS),
    ratedW: number('rated-w', { least: 0.001, most: 100_000 }), overdriveDb: number('overdrive-db', { least: 0, most: 60 }), crossoverHz: number('crossover-hz', { least: 1, most: 96_000 }),
  }, seeded(number('seed', { least: 0, most: 1e9, otherwise: 1 }))),
})
