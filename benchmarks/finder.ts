import loadHighs from 'highs'
import { unstatedModel } from '#core/gear/models'
import { findAmplifiers } from '#core/search/plan/amplifierFinder'
import { solverOf } from '#core/search/plan/lp'
import { jobOf } from '#core/testing/jobs'
import { quantile } from './timing'

/** Amplifiers for 24 lines out of 500 models: the median of five. */
export async function finderMs(): Promise<number> {
  const solve = solverOf(await loadHighs())
  const job = jobOf(...Array.from({ length: 24 }, (_, k) => `${[40, 64, 80, 96, 160, 200, 280][k % 7]} W on ${k % 5 === 4 ? 100 : 70} V`))
  const models = Array.from({ length: 500 }, (_, k) => {
    const [count, powerW] = [[1, 2, 4, 8][k % 4]!, 40 + (k * 37) % 460]
    const price = Math.round(60 + count * powerW * (0.5 + ((k * 53) % 97) / 97) + 40 * count)
    return { ...unstatedModel('amplifier', `Model ${k}`), price, outputs: [{ count, points: [], lines: [70.71, ...(k % 3 ? [100] : [])].map(lineV => ({ lineV, powerW })), floorOhm: null, valve: null }] }
  })
  const times: number[] = []
  for (let k = 0; k < 5; k++) {
    const from = performance.now()
    const { sets } = await findAmplifiers(job, models, solve)
    times.push(performance.now() - from)
    if (!sets.every(s => s.proven) || sets.length === 0) throw new Error('nothing found')
  }
  return quantile(times, 0.5)
}
