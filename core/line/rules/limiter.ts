import { driveInto } from '#core/amplifier/index'
import { found, type Rule } from './rule'

/** A limiter that is set: what it holds, or that it holds nothing. */
export const limiter: Rule = (line) => {
  const { limiterV, rating } = line.output
  const free = line.upOhm === null ? null : driveInto(rating, line.upOhm)
  if (limiterV === null || free === null || free.basis === 'under-floor') return []
  return limiterV < free.mostVolts
    ? [found(line, { code: 'limiter-holds', grade: 'good', facts: { limiterV, powerW: limiterV ** 2 / line.upOhm!, couldW: free.mostW } })]
    : [found(line, { code: 'limiter-idle', grade: 'unknown', facts: { limiterV, fullV: free.mostVolts } })]
}
