import { z } from 'zod'
import { DEFAULT_PEAKS, EARS, PEAK_SCHOOL_IDS, SPACE_USE_IDS } from '#core/schools/loudness'
import { bounded, idText, instant, nameText, plainText } from '#core/quantity/fields'
import { DEFAULT_OVERLAP, OVERLAP_IDS } from '#core/room/coverage'
import { areaM2, crossingWalls, rectangle } from '#core/room/outline'
import { MOST_CORNERS, MOST_PLACES, SLACK } from '#core/room/limits'
import { MOST_PHOTO_PX, photoHash } from '../photos/schema'

/** The rooms of a job: what each is for, its floor, and the places where speakers hang or are to hang. */

const metre = bounded('m', -1000, 1000)
const placeFields = { xM: metre, yM: metre }
const outlineSchema = z.array(z.strictObject(placeFields)).min(3, 'must have at least three walls').max(MOST_CORNERS, `must have at most ${MOST_CORNERS} walls`)
  .refine(outline => outline.length < 3 || crossingWalls(outline) === null, 'has walls that cross')
  .refine(outline => outline.length < 3 || areaM2(outline) >= 0.5, 'is smaller than half a square metre')

/** What is over the heads; it decides how a speaker is held, not how loud it is. */
export const CEILINGS = ['not-known', 'tiles', 'closed', 'open', 'outdoors'] as const
const pixels = z.int().min(1).max(MOST_PHOTO_PX)
/** Levels of a measured place. */
const level = bounded('dB', 0, 150)

export const spotFields = {
  ...placeFields,
  /** Of the speaker above the floor; null: at the ceiling. */
  heightM: bounded('m', 0, 100).nullable(),
  /** Where it faces: turned from the plan's right towards its far side, and tilted down from level; null: straight down. */
  aim: z.strictObject({ turnDeg: bounded('°', -360, 360), tiltDeg: bounded('°', -90, 90) }).nullable(),
  /** The speaker of the wiring that hangs there; null while none does. One that is gone counts as none. */
  nodeId: idText.nullable(),
}
export const spotSchema = z.strictObject({ id: idText, ...spotFields })
export type Spot = z.infer<typeof spotSchema>

/** A level that was measured at a place, over what was asked of the meter. */
export const measuredSchema = z.strictObject({ id: idText, ...placeFields, db: level, at: instant, note: plainText(200) })

export const spaceFields = {
  name: nameText,
  /** The storey, in the words of the house. */
  floor: plainText(60),
  use: z.enum(SPACE_USE_IDS),
  outline: outlineSchema,
  heightM: bounded('m', 1, 100),
  earsM: bounded('m', 0, 50),
  ceiling: z.enum(CEILINGS),
  /** What is heard with the system off, dB SPL; null: not known. */
  noiseDb: level.nullable(),
  /** How far above the noise it should sound, where that is not left to its use. */
  overDb: bounded('dB', -20, 40).nullable(),
  peaks: z.enum(PEAK_SCHOOL_IDS),
  overlap: z.enum(OVERLAP_IDS),
  turnDeg: bounded('°', -180, 180),
  /** The kind of speaker (job.kinds) that is to hang there; null: not chosen yet. */
  kindId: idText.nullable(),
  /** The tap that they are to hang on, W; null: the lowest that reaches the target. */
  tapW: bounded('W', 0.01, 10_000).nullable(),
  /** Where the cable comes in. */
  entry: z.strictObject(placeFields),
  /** Cable from the rack to there, m; null: not known. */
  rackM: bounded('m', 0, 10_000).nullable(),
  /** What is added to every length: a tenth is 0.1. */
  slack: bounded('', 0, 2),
  /** What is known of the listing that the local code asks of cable here. */
  cableRemark: plainText(200),
  /** The building's own plan under the floor, a picture that is kept as photos are; null: none. `fade`: how strong it is shown, 0 to 1. */
  picture: z.strictObject({
    hash: photoHash, widthPx: pixels, heightPx: pixels, mPerPx: bounded('m', 1e-5, 10), ...placeFields, turnDeg: bounded('°', -360, 360), fade: bounded('', 0, 1),
  }).nullable(),
}
export const MOST_SPACES = 300
export const MOST_MEASURED = 500
export const spaceSchema = z.strictObject({
  id: idText, ...spaceFields, spots: z.array(spotSchema).max(MOST_PLACES), measured: z.array(measuredSchema).max(MOST_MEASURED),
})
export type Space = z.infer<typeof spaceSchema>

/** A space of which only a name is known: what is taken for it until somebody says otherwise. */
export function plainSpace(id: string, name: string): Space {
  return {
    id, name, floor: '', use: 'lively-background', outline: rectangle(8, 6), heightM: 3, earsM: EARS[0].earsM, ceiling: 'not-known', noiseDb: null, overDb: null, peaks: DEFAULT_PEAKS,
    overlap: DEFAULT_OVERLAP, turnDeg: 0, kindId: null, tapW: null, entry: { xM: 0, yM: 0 }, rackM: null, slack: SLACK, cableRemark: '', picture: null, spots: [], measured: [],
  }
}
