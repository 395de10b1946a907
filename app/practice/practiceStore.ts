import { computed, shallowRef } from 'vue'
import { defineStore } from 'pinia'
import { codeOfExercise, type ExerciseFile } from '#core/practice/files'
import { playOf, sumOf, type Act } from '#core/practice/game'
import { bestMinutes, type BestOf } from '#core/practice/gameWords'
import type { PathStep } from '#core/practice/path'
import type { Rig } from '#core/practice/rig'
import { InputError } from '#core/quantity/inputError'
import type { Result } from '#core/practice/result'
import { joined, missingIn, readActs, readExercises, readResults, withExercise } from './kept'
import { pullResults, pushResult } from './withPerson'
import type { ScoreQuestion, ScoreSaid } from './score.worker'
import { rigOfSource, sourceOf, type RigSource } from './source'

const RESULTS = 'plain-match.practice'
const EXERCISES_KEY = 'plain-match.exercises'
const playKey = (code: string) => `plain-match.play.${code}`
const stored = (key: string): string | null => {
  try {
    return localStorage.getItem(key)
  }
  catch {
    return null
  }
}
/** A device that keeps nothing plays all the same. */
function store(key: string, value: unknown): void {
  try {
    if (value === null) localStorage.removeItem(key)
    else localStorage.setItem(key, JSON.stringify(value))
  }
  catch { /* Full, or closed. */ }
}

/** Practice: a world of its own. Nothing in here knows of a job, and no edit is made. */
export const usePracticeStore = defineStore('practice', () => {
  const results = shallowRef<readonly Result[]>(readResults(stored(RESULTS)))
  const exercises = shallowRef<readonly ExerciseFile[]>(readExercises(stored(EXERCISES_KEY)))
  const source = shallowRef<RigSource | null>(null)
  const rig = shallowRef<Rig | null>(null)
  const acts = shallowRef<readonly Act[]>([])
  const problem = shallowRef('')
  const best = shallowRef<BestOf | null>(null)
  /** Acts of the tracer so far, while it plays. */
  const bestActs = shallowRef(0)
  const path = shallowRef<readonly PathStep[] | null>(null)
  /** Share of the looking back that is done. */
  const lookedBack = shallowRef<number | null>(null)
  const play = computed(() => rig.value ? playOf(rig.value, acts.value) : null)
  const workers: { best: Worker | null, path: Worker | null } = { best: null, path: null }

  function ask(which: 'best' | 'path', question: ScoreQuestion, take: (said: ScoreSaid) => void): void {
    workers[which]?.terminate()
    const worker = new Worker(new URL('./score.worker.ts', import.meta.url), { type: 'module' })
    workers[which] = worker
    worker.onmessage = ({ data }: MessageEvent<ScoreSaid>) => {
      take(data)
      if (!('done' in data)) worker.terminate()
    }
    worker.onerror = () => { problem.value = 'The score could not be loaded: it comes from the server, which is away.' }
    // What a store holds may be proxies, which no worker can be given.
    worker.postMessage(JSON.parse(JSON.stringify(question)))
  }
  function end(): void {
    for (const which of ['best', 'path'] as const) {
      workers[which]?.terminate()
      workers[which] = null
    }
  }

  /** Opens a rig by its code, with what was done on it so far. */
  function open(code: string): void {
    end()
    problem.value = ''
    best.value = null
    bestActs.value = 0
    path.value = null
    lookedBack.value = null
    try {
      source.value = sourceOf(code, exercises.value)
      rig.value = rigOfSource(source.value)
      acts.value = readActs(stored(playKey(rig.value.code)))
      ask('best', { source: source.value, acts: null }, (said) => {
        if ('done' in said) bestActs.value = said.done
        if (!('best' in said)) return
        best.value = said.best
        noteBest()
      })
      if (play.value!.isOver) lookBack()
    }
    catch (error) {
      if (!(error instanceof InputError)) throw error
      source.value = null
      rig.value = null
      problem.value = error.message
    }
  }

  function act(one: Act): void {
    if (!play.value || play.value.isOver) return
    const before = acts.value
    acts.value = [...before, one]
    // What changed nothing was not done.
    if (play.value.steps.length <= before.length) {
      acts.value = before
      return
    }
    store(playKey(rig.value!.code), acts.value)
    if (play.value.isOver) finish()
  }

  /** Begins once more with the first so many acts; what was seen stays seen. */
  function again(upTo: number): void {
    workers.path?.terminate()
    path.value = null
    lookedBack.value = null
    acts.value = acts.value.slice(0, upTo)
    store(playKey(rig.value!.code), acts.value.length === 0 ? null : acts.value)
  }

  function finish(): void {
    const mistakes = play.value!.steps.flatMap(s => s.mistake ?? [])
    const result: Result = { code: rig.value!.code, at: new Date().toISOString(), ...sumOf(play.value!), bestMinutes: best.value
      ? bestMinutes(best.value)
      : null, worst: mistakes[0] ?? null }
    keep([result])
    void pushResult(result)
    lookBack()
  }
  /** The best play may come after the end: a result that waits for it is given it. */
  function noteBest(): void {
    const minutes = bestMinutes(best.value!)
    if (minutes === null) return
    const waiting = results.value.filter(r => r.code === rig.value!.code && r.bestMinutes === null).map(r => ({ ...r, bestMinutes: minutes }))
    keep(waiting)
    for (const one of waiting) void pushResult(one)
  }
  function keep(more: readonly Result[]): void {
    results.value = joined(results.value, more)
    store(RESULTS, results.value)
  }

  function lookBack(): void {
    if (!source.value) return
    lookedBack.value = 0
    ask('path', { source: source.value, acts: [...acts.value] }, (said) => {
      if ('path' in said) {
        path.value = said.path
        lookedBack.value = null
      }
      else if ('done' in said) lookedBack.value = said.done
      else if ('problem' in said) problem.value = `Looking back came to no end: ${said.problem}`
    })
  }

  function addExercise(file: ExerciseFile): string {
    exercises.value = withExercise(exercises.value, file, codeOfExercise)
    store(EXERCISES_KEY, exercises.value)
    return codeOfExercise(file)
  }

  /** What the server has of this person, from another device. */
  async function pull(): Promise<void> {
    const theirs = await pullResults()
    if (theirs === null) return
    // What was played while it was away goes to it now.
    for (const one of missingIn(theirs, results.value)) void pushResult(one)
    keep(theirs)
  }

  return { results, exercises, source, rig, acts, play, problem, best, bestActs, path, lookedBack, open, act, again, end, addExercise, pull }
})
