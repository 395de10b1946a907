import { InputError } from '#core/quantity/inputError'
import { seeded } from '#core/quantity/seeded'
import { clipReport } from '#core/programme/clip'
import { MATERIAL_IDS } from '#core/programme/material'
import { flagsOf, numberOf } from './flags'

export const CLIP_TAKES = `--rated-w 100 --overdrive-db 6 --crossover-hz 2500 --material ${MATERIAL_IDS.join('|')} [--seed 1]`

/** What an amplifier gives that is driven into clipping, and what of it reaches a high-frequency unit. */
export function clipVerb(...words: string[]): unknown {
  const { flag } = flagsOf(words, CLIP_TAKES, { plain: 0, known: ['rated-w', 'overdrive-db', 'crossover-hz', 'material', 'seed'] })
  const material = MATERIAL_IDS.find(id => id === flag('material'))
  if (!material) throw new InputError(`There is no material “${flag('material') ?? ''}”.`, 0, MATERIAL_IDS)
  return clipReport({
    ratedW: numberOf(flag('rated-w'), 'rated-w', { least: 0.001, most: 100_000 }), overdriveDb: numberOf(flag('overdrive-db'), 'overdrive-db', { least: 0, most: 60 }),
    crossoverHz: numberOf(flag('crossover-hz'), 'crossover-hz', { least: 1, most: 96_000 }), material,
  }, seeded(numberOf(flag('seed'), 'seed', { least: 0, most: 1e9, otherwise: 1 })))
}
