import { z } from 'zod'
import { quickAnswerOrWays, quickAnswerSchema, quickWaysSchema } from '#core/quick/report'
import { defineVerb } from '../verb'

export const quick = defineVerb({
  does: 'what a typed line asks of its amplifier: load, watts, verdict; where only the wiring is left open, every way',
  words: ['"12 x 5 W + 2 x 20 W on 70 V 120 W"'],
  flags: {},
  example: 'quick "(8 + 8) || (8 + 8)"',
  answer: z.union([quickAnswerSchema, quickWaysSchema]),
  run: ({ words: [line] }) => quickAnswerOrWays(line!),
})
