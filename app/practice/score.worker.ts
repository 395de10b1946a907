import { bestPlay } from '#core/practice/best'
import type { Act } from '#core/practice/game'
import type { BestOf } from '#core/practice/gameWords'
import { pathOf, type PathStep } from '#core/practice/path'
import { drained } from '#core/quantity/steps'
import { playing } from '#core/practice/tracer'
import { rigOfSource, type RigSource } from './source'

/** What takes seconds: the best play of a rig, or a play looked back on. One question, one worker; whoever has another question ends it. */
export type ScoreQuestion = { source: RigSource, acts: Act[] | null }
/** `done`: of a play looked back on the share, of a best play the acts of the tracer so far. */
export type ScoreSaid = { done: number } | { best: BestOf } | { path: PathStep[] } | { problem: string }

self.onmessage = ({ data: { source, acts } }: MessageEvent<ScoreQuestion>) => {
  const say = (said: ScoreSaid) => self.postMessage(said)
  try {
    const rig = rigOfSource(source)
    if (acts === null) {
      const best = bestPlay(rig)
      if (best) return say({ best: { by: 'exact', best } })
      const { minutes, tests, isFound, acts: tracers } = drained(playing(rig), done => say({ done }))
      return say({ best: { by: 'tracer', minutes: isFound ? minutes : null, tests, acts: tracers } })
    }
    say({ path: drained(pathOf(rig, acts), done => say({ done })) })
  }
  catch (error) {
    say({ problem: error instanceof Error ? error.message : String(error) })
  }
}
