import { readCode } from '#core/practice/code'
import { EXERCISES } from '#core/practice/exercises'
import { codeOfExercise, rigOfFile, type ExerciseFile } from '#core/practice/files'
import { rigOf, type Rig } from '#core/practice/rig'
import { InputError } from '#core/quantity/inputError'

/** Where a rig comes from: a code of the fifteen, or an exercise that somebody made, which is on this device. */
export type RigSource = { code: string } | { exercise: ExerciseFile }

/** @throws InputError */
export const rigOfCode = (code: string): Rig => rigOf(readCode(code, EXERCISES.length))
/** @throws InputError */
export const rigOfSource = (source: RigSource): Rig => 'code' in source ? rigOfCode(source.code) : rigOfFile(source.exercise)

/** @throws InputError where no exercise of that code is here */
export function sourceOf(code: string, exercises: readonly ExerciseFile[]): RigSource {
  if (!code.toUpperCase().startsWith('X-')) {
    rigOfCode(code)
    return { code: code.toUpperCase() }
  }
  const exercise = exercises.find(e => codeOfExercise(e) === code.toUpperCase())
  if (!exercise) throw new InputError(`The exercise ${code.slice(0, 20)} is not on this device: ask for its file, and read it in.`, 0, [])
  return { exercise }
}
