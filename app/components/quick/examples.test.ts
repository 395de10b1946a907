import { expect, test } from '@jest/globals'
import { quick } from '#core/quick/answer'
import { LINE_WORDS, SAID_EXAMPLES } from './examples'

test.each([...LINE_WORDS.map(([text]) => text), SAID_EXAMPLES[1]])('what is offered is understood: “%s”', text => expect(quick(text).evaluation.drops.length).toBeGreaterThan(0))
