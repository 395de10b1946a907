import { curveReportSchema, readCurve } from '#core/format/curve'
import { defineVerb } from '../verb'

export const curve = defineVerb({
  does: 'what a measured impedance as text says, and what is to be known of it',
  words: ['FILE'],
  flags: {},
  example: 'curve woofer.txt',
  answer: curveReportSchema,
  run: ({ words: [path] }, { readText }) => readCurve(readText(path!)),
})
