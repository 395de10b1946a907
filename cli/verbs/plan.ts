import { planReport, planReportSchema } from '#core/search/plan/planReport'
import { planTaps } from '#core/search/plan/tapPlan'
import { loadSolver } from '../solver'
import { defineVerb, oneOf } from '../verb'

export const plan = defineVerb({
  does: 'the taps of all spaces of a saved job, with the least watts; `--growth` is kept free on every line, `--lp` writes the program down, to be solved elsewhere',
  words: ['FILE.plainmatch.json'],
  flags: { growth: '[0.1]', taps: '[equal|may-differ]', lp: '[FILE.lp]' },
  example: 'plan garden.plainmatch.json',
  answer: planReportSchema,
  run: async ({ words: [path], flag, number }, { readJob, writeText }) => {
    const taps = oneOf(flag('taps'), 'way with taps', ['equal', 'may-differ'] as const, 'equal')
    const growth = number('growth', { least: 0, most: 5, otherwise: 0 })
    const found = await planTaps(readJob(path!), await loadSolver(), { growth, mayDiffer: taps === 'may-differ' })
    const file = flag('lp')
    if (file !== undefined) writeText(file, found.lp)
    return planReport(found)
  },
})
