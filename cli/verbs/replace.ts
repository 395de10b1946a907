import { replaceReport, replaceSchema } from '#core/bench/replace'
import { guessMapping, readGear, readTable } from '#core/gear/csv'
import { SPEAKER_BUILDS, type SpeakerModel } from '#core/gear/speaker'
import { tidy } from '#core/line/report'
import { InputError } from '#core/quantity/inputError'
import { defineVerb, oneOf } from '../verb'

const FIGURES = { 'nominal-ohm': [1, 1000], 'dcr-ohm': [0.1, 2000], 'frame-mm': [5, 1000], 'cut-out-mm': [5, 1000], 'depth-mm': [1, 1000], 'magnet-mm': [1, 500], 'sensitivity-db': [40, 130], 'rating-w': [0.01, 10_000] } as const

export const replace = defineVerb({
  does: 'which units of a table take the place of one, ranked, each with what to mind, and why the others do not; a failed coil says nothing of the ohms: the label, or the sound twin’s coil',
  words: ['GEAR.csv'],
  flags: { 'nominal-ohm': '[4]', 'dcr-ohm': '[3.4]', 'frame-mm': '[130]', 'cut-out-mm': '[116]', 'depth-mm': '[55]', 'magnet-mm': '[70]', 'holes': '[4 x 90°]', 'plus-mark': '[wide tab]', 'sensitivity-db': '[88]', 'rating-w': '[30]', 'build': `[${SPEAKER_BUILDS.join('|')}]` },
  example: 'replace drawer.csv --nominal-ohm 4 --frame-mm 130 --sensitivity-db 88',
  answer: replaceSchema,
  run: ({ words: [path], flag, number }, { readText, remark }) => {
    const table = readTable(readText(path!))
    const { good, bad } = readGear('speaker', table, guessMapping('speaker', table.heads))
    for (const { row, column, message } of bad) remark(`Line ${row}, ${column}: ${message} Left out.`)
    if (good.length === 0) throw new InputError('No row of this table is a speaker.', 0, [])
    const figure = (name: keyof typeof FIGURES) => flag(name) === undefined ? null : number(name, { least: FIGURES[name][0], most: FIGURES[name][1] })
    return tidy(replaceReport({
      nominalOhm: figure('nominal-ohm'), dcrOhm: figure('dcr-ohm'),
      body: {
        build: flag('build') === undefined ? null : oneOf(flag('build'), 'build', SPEAKER_BUILDS), frameMm: figure('frame-mm'), cutOutMm: figure('cut-out-mm'), depthMm: figure('depth-mm'),
        magnetMm: figure('magnet-mm'), holes: flag('holes') ?? '', plusMark: flag('plus-mark') ?? '', sensitivityDb: figure('sensitivity-db'), sensitivityAt: '1 W', continuousW: figure('rating-w'),
      },
    }, good.map(g => g.model as SpeakerModel)))
  },
})
