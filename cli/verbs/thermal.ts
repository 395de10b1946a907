import { ENOUGH_K, SKIN_C, thermalReport, thermalSchema, type Warm } from '#core/bench/thermal'
import { tidy } from '#core/line/report'
import { numbersIn } from '../columns'
import { defineVerb } from '../verb'

const runIn = (text: string): Warm[] => numbersIn(text, ['minute', 'celsius']).map(([minute, celsius]) => ({ minute: minute!, celsius: celsius! }))

export const thermal = defineVerb({
  does: `where a power transformer that warms up will end, and how sure that is (columns minute, celsius; narrow enough at ${ENOUGH_K} K); against a run with a right load; --limit-c: a limit of your own in place of ${SKIN_C} °C, which skin stands for a minute`,
  words: ['RUN.csv'],
  flags: { 'baseline': '[BASE.csv]', 'limit-c': `[${SKIN_C}]` },
  example: 'thermal loft-head.csv --baseline loft-head-right.csv',
  answer: thermalSchema,
  run: ({ words: [path], flag, number }, { readText }) => {
    const baseline = flag('baseline')
    return tidy(thermalReport(runIn(readText(path!)), baseline === undefined ? null : runIn(readText(baseline)), number('limit-c', { least: 20, most: 200, otherwise: SKIN_C })))
  },
})
