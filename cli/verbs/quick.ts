import { quickAnswer, quickAnswerSchema } from '#core/quick/answer'
import { defineVerb } from '../verb'

export const quick = defineVerb({
  does: 'what a typed line asks of its amplifier: load, watts, verdict',
  words: ['"12 x 5 W + 2 x 20 W on 70 V 120 W"'],
  flags: {},
  example: 'quick "(8 + 8) || (8 + 8)"',
  answer: quickAnswerSchema,
  run: ({ words: [line] }) => quickAnswer(line!),
})
