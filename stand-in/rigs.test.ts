import { expect, test } from '@jest/globals'
import { writeCode } from '#core/practice/code'
import { readRig, rigOf } from '#core/practice/rig'
import { rigOfCode, truthOfRig } from './rigs'

test('a coil of a rig by its code, as the rig itself reads it; nothing else of it, and nothing of what is no code', () => {
  const rig = rigOfCode(writeCode({ level: 7, seed: 3 }).toLowerCase())!
  const [own] = readRig(rigOf({ level: 7, seed: 3 }), { kind: 'coil-dcr', nodeId: 's1', besideId: null })!
  expect(truthOfRig(rig, { outputId: 'line', nodeId: 's1', kind: 'coil-dcr' })).toBe((own!.value as { ohm: number }).ohm)
  expect([truthOfRig(rig, { outputId: 'line', nodeId: 's9', kind: 'coil-dcr' }), truthOfRig(rig, { outputId: 'line', nodeId: null, kind: 'line-impedance' })]).toEqual([null, null])
  expect([rigOfCode('R2-07-00003'), rigOfCode('5a7a5a7a-4c3b-4f6b-8f5e-202020202020')]).toEqual([null, null])
})
