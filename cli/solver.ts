import loadHighs from 'highs'
import { solverOf, type SolveLp } from '#core/search/plan/lp'

export async function loadSolver(): Promise<SolveLp> {
  return solverOf(await loadHighs())
}
