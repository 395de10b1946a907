import { bestPlay } from '#core/practice/best'
import type { Act } from '#core/practice/game'
import type { BestOf } from '#core/practice/gameWords'
import { pathOf, type PathStep } from '#core/practice/path'
import { played } from '#core/practice/play'
import { rigOfSource, type RigSource } from './source'

/** What takes seconds: the best play of a rig, or a play looked back on. One question, one worker; whoever has another question ends it. */
export type ScoreQuestion = { source: RigSource, acts: Act[] | null }
export type ScoreSaid = { done: number } | { best: BestOf } | { path: PathStep[] } | { problem: string }

self.onmessage = ({ data: { source, acts } }: MessageEvent<ScoreQuestion>) => {
  const say = (said: ScoreSaid) => self.postMessage(said)
  try {
    const rig = rigOfSource(source)
    if (acts === null) {
      const best = bestPlay(rig)
      if (best) return say({ best: { by: 'exact', best } })
      const { minutes, path, rank } = played(rig)
      return say({ best: { by: 'tracer', minutes: rank === null ? null : minutes, tests: path.length } })
    }
    const steps = pathOf(rig, acts)
    for (;;) {
      const step = steps.next()
      if (step.done) return say({ path: step.value })
      say({ done: step.value })
    }
  }
  catch (error) {
    say({ problem: error instanceof Error ? error.message : String(error) })
  }
}
