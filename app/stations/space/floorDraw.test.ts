import { expect, test } from '@jest/globals'
import { floorOfCorners } from '#core/room/sides'
import { gridFor, gridOf, onGrid, pressed, takenBack, wallLengths, type Drawn } from './floorDraw'

const at = (xM: number, yM: number) => ({ xM, yM })
const draw = (...places: [number, number][]) => places.reduce<Drawn>((drawn, [x, y]) => pressed(drawn, at(x, y)), { corners: [], isClosed: false })

test('presses make corners; the first one closes it once there are three; after that nothing more', () => {
  const three = draw([1, 1], [5, 1], [5, 1], [5, 4])
  expect([three.corners.length, three.isClosed]).toEqual([3, false])
  expect(draw([1, 1], [5, 1], [1, 1])).toEqual({ corners: [at(1, 1), at(5, 1), at(1, 1)], isClosed: false })
  const closed = draw([1, 1], [5, 1], [5, 4], [1, 1], [2, 2])
  expect(closed).toEqual({ corners: [at(1, 1), at(5, 1), at(5, 4)], isClosed: true })
  expect(takenBack(closed)).toEqual({ corners: closed.corners, isClosed: false })
  expect(takenBack(takenBack(closed)).corners).toHaveLength(2)
})

test('a place lands on the grid and stays on it', () => {
  const grid = gridOf(1, 'metric')
  const on = (xM: number, yM: number) => onGrid(at(xM, yM), grid)
  expect([grid.spanM, grid.stepM, on(3.3, 7.76), on(-2, 99), on(99, 0)]).toEqual([24, 0.5, at(3.5, 8), at(0, 15), at(24, 0)])
  expect(gridOf(0, 'imperial')).toMatchObject({ spanM: expect.closeTo(12.192, 6), says: '40 ft along, a square is 4 ft' })
  expect([gridFor(8, 5, 'metric'), gridFor(8, 7, 'metric'), gridFor(46, 20, 'metric'), gridFor(500, 20, 'metric'), gridFor(11, 2, 'imperial')]).toEqual([0, 1, 3, 3, 0])
})

test('walls say how long they are, the one to come too', () => {
  const three = draw([0, 0], [4, 0], [4, 3])
  expect(wallLengths(three, at(0, 3), 'metric').map(w => [w.text, w.xM, w.yM])).toEqual([['4', 2, 0], ['3', 4, 1.5], ['4', 2, 3]])
  expect(wallLengths({ ...three, isClosed: true }, at(9, 9), 'imperial').map(w => w.text)).toEqual(['13.1', '9.84', '16.4'])
  expect(wallLengths(three, at(4, 3), 'metric')).toHaveLength(2)
})

test.each<[string, [number, number][], unknown]>([
  ['begins at its least corner, straight walls are one', [[2, 1], [4, 1], [8, 1], [8, 5], [2, 5]], [at(0, 0), at(6, 0), at(6, 4), at(0, 4)]],
  ['three corners', [[0, 0], [4, 0], [0, 3]], [at(0, 0), at(4, 0), at(0, 3)]],
  ['walls that cross', [[0, 0], [4, 4], [4, 0], [0, 4]], 'Walls 1 and 3 cross.'], ['a line', [[0, 0], [4, 0], [8, 0]], 'at least three corners'], ['next to nothing', [[0, 0], [1, 0], [0, 0.5]], 'The floor is smaller than half a square metre.'],
  ['two corners', [[0, 0], [4, 0]], 'at least three corners'],
])('a floor of corners: %s', (_, places, wanted) => {
  const corners = places.map(([x, y]) => at(x, y))
  if (typeof wanted === 'string') expect(() => floorOfCorners(corners)).toThrow(wanted)
  else expect(floorOfCorners(corners)).toEqual(wanted)
})
