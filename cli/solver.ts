import loadHighs from 'highs'
import { HIGHS_OPTIONS, solvedByHighs, type HighsAnswer, type SolveLp } from '#core/match/plan/lp'

export async function loadSolver(): Promise<SolveLp> {
  const highs = await loadHighs()
  return lp => Promise.resolve(solvedByHighs(highs.solve(lp, HIGHS_OPTIONS) as HighsAnswer))
}
