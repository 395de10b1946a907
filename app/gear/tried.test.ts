import { expect, test } from '@jest/globals'
import { unstatedModel } from '#core/gear/models'
import { counter } from '#core/testing/jobs'
import { makeTried, type NewModel } from './tried'

const model = (name: string): NewModel => ({ kind: 'cable', body: unstatedModel('cable', name) })

test('the same models keep their ids until they are in; others, or the same after that, get new ones', () => {
  const tried = makeTried(counter('m'))
  const two = [model('a'), model('b')]
  const first = tried.idsFor(two)
  expect(tried.idsFor([model('a'), model('b')])).toEqual(first)
  expect(tried.idsFor([model('a'), model('c')])).not.toEqual(first)
  const again = tried.idsFor(two)
  expect(again).not.toEqual(first)
  tried.cameIn()
  expect(tried.idsFor(two)).not.toEqual(again)
})

test('of many only the very same objects are the same: ten thousand are not looked through', () => {
  const tried = makeTried(counter('m'))
  const many = Array.from({ length: 30 }, (_, k) => model(`m${k}`))
  const first = tried.idsFor(many)
  expect(tried.idsFor(many.map(m => ({ ...m })))).toEqual(first)
  expect(tried.idsFor(many.map(m => ({ ...m, body: { ...m.body } })))).not.toEqual(first)
})
