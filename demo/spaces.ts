import { kindOfGear } from './gear'
import { rectangle, type Place } from '#core/room/outline'
import { readFloor } from '#core/room/sides'
import { plainSpace } from '#core/job/sections/spaces/schema'
import type { Job, Space, Spot } from '#core/job/schema'
import { two } from './build'

/** The rooms of Fernhollow Glasshouses: five whose speakers hang, and one that is planned. */

type Row = [xM: number, yM: number, more?: Partial<Pick<Spot, 'heightM' | 'aim'>>]
/** Places of the speakers `LINE-01`…, or of none yet. */
function spots(prefix: string, line: string | null, rows: Row[]): Spot[] {
  return rows.map(([xM, yM, more], k) => ({
    id: `${prefix}-p${two(k + 1)}`, xM, yM, heightM: more?.heightM ?? null, aim: more?.aim ?? null, nodeId: line === null ? null : `${line}-${two(k + 1)}`,
  }))
}
const along = (count: number, fromM: number, stepM: number, yM: number, more?: Row[2]): Row[] =>
  Array.from({ length: count }, (_, k): Row => [fromM + k * stepM, yM, more])

interface Drawn { id: string, name: string, kind: string, outline: Place[], spots: Spot[], more: Partial<Space> }
const DRAWN: Drawn[] = [
  {
    id: 'fh-space-palm', name: 'Palm house', kind: 'Ceiling 165 back-can, 30 W', outline: rectangle(46, 20),
    // Hung from the trusses, well under the glass; the last one stands on the wall by the gate.
    spots: spots('palm', 'fh-palm', [[4.5, 10, { heightM: 5.5 }], [13, 10, { heightM: 5.5 }], [21.5, 10, { heightM: 5.5 }], [30, 10, { heightM: 5.5 }], [38.5, 10, { heightM: 5.5 }], [45, 18, { heightM: 3, aim: { turnDeg: -135, tiltDeg: 15 } }]]),
    more: { use: 'lively-background', heightM: 11, earsM: 1.65, ceiling: 'open', noiseDb: 66, rackM: 8, entry: { xM: 0, yM: 9 } },
  },
  {
    id: 'fh-space-orchid', name: 'Orchid gallery', kind: 'Pendant 130, 24 W', outline: readFloor('18 right 5 right 6 left 4 right 12 right 9'),
    spots: spots('orchid', 'fh-orchid', [[2.3, 2.3], [6.8, 2.3], [11.3, 2.3], [15.8, 2.3], [2.3, 6.8], [6.8, 6.8], [10.6, 6.8]]),
    more: { use: 'lively-background', heightM: 3.6, earsM: 1.65, ceiling: 'open', noiseDb: 64, rackM: 6, entry: { xM: 0, yM: 2 }, overlap: 'least', cableRemark: 'Glass roof above, damp: the site office asks for a listed cable' },
  },
  {
    id: 'fh-space-fern', name: 'Fern grotto', kind: 'Ceiling 165 back-can, 30 W', outline: rectangle(27.5, 11),
    spots: spots('fern', 'fh-fern', [...along(5, 2.8, 5.5, 2.8), ...along(5, 2.8, 5.5, 8.3).reverse()]),
    more: { use: 'lively-background', heightM: 4, earsM: 1.65, ceiling: 'closed', noiseDb: 72, rackM: 15, entry: { xM: 0, yM: 2.8 } },
  },
  {
    id: 'fh-space-ticket', name: 'Ticket court, shop', kind: 'Ceiling 165 back-can, 30 W', outline: rectangle(32, 9),
    spots: spots('ticket', 'fh-ticket', [...along(5, 2.5, 4.5, 3), [27, 3], [31.5, 1.5, { heightM: 2.6, aim: { turnDeg: 180, tiltDeg: 20 } }], [31.5, 6, { heightM: 2.6, aim: { turnDeg: 180, tiltDeg: 20 } }]]),
    more: { use: 'speech', heightM: 3.2, earsM: 1.65, ceiling: 'tiles', noiseDb: 60, rackM: 4, entry: { xM: 0, yM: 0 } },
  },
  {
    id: 'fh-space-staff', name: 'Potting shed', kind: 'Surface 100, 16 W', outline: rectangle(9, 6),
    spots: spots('staff', null, [[0.2, 1.8, { heightM: 2.5, aim: { turnDeg: 0, tiltDeg: 20 } }], [0.2, 4.2, { heightM: 2.5, aim: { turnDeg: 0, tiltDeg: 20 } }], [8.8, 3, { heightM: 2.5, aim: { turnDeg: 180, tiltDeg: 20 } }]]),
    more: { use: 'quiet-background', heightM: 2.8, earsM: 1.65, ceiling: 'open', noiseDb: 56, rackM: 24, entry: { xM: 0, yM: 0 } },
  },
  {
    id: 'fh-space-roof', name: 'Roof walk', kind: 'Horn 200, 30 W', outline: rectangle(72, 5),
    spots: spots('roof', 'fh-roof', along(4, 8, 18, 0.4, { heightM: 3, aim: { turnDeg: 60, tiltDeg: 15 } })),
    more: { floor: 'Roof', use: 'speech', heightM: 3, earsM: 1.65, ceiling: 'outdoors', noiseDb: 66, rackM: 32, entry: { xM: 0, yM: 0 }, cableRemark: 'In steel conduit, as the site asks' },
  },
]

/** Fernhollow with its rooms; their speakers are of the kinds of the job, and one more for the shed. */
export function withSpaces(job: Job): Job {
  const kinds = [...job.kinds]
  const kindId = (name: string): string => {
    if (!kinds.some(k => k.model.name === name)) kinds.push(kindOfGear(name, `kind-${kinds.length + 1}`))
    return kinds.find(k => k.model.name === name)!.id
  }
  const spaces = DRAWN.map(({ id, name, kind, outline, spots: places, more }): Space => ({ ...plainSpace(id, name), floor: 'Ground', kindId: kindId(kind), outline, spots: places, ...more }))
  return { ...job, kinds, spaces }
}
