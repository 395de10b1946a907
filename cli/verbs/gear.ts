import { gearCheckSchema, guessMapping, readGear, readTable, type GearCheck } from '#core/gear/csv'
import { GEAR_KINDS } from '#core/gear/models'
import { InputError } from '#core/quantity/inputError'
import { defineVerb, oneOf } from '../verb'

export const gear = defineVerb({
  does: 'what of a table of gear can be taken into the library, and what is wrong with the rest',
  words: ['check', 'FILE.csv'],
  flags: { kind: GEAR_KINDS.join('|') },
  example: 'gear check ceilings.csv --kind speaker',
  answer: gearCheckSchema,
  run: ({ words: [deed, path], flag }, { readText }) => {
    if (deed !== 'check') throw new InputError(`There is no “${deed}” of gear.`, 0, ['check'])
    const kind = oneOf(flag('kind'), 'gear of the kind', GEAR_KINDS)
    const table = readTable(readText(path!))
    const { good, bad } = readGear(kind, table, guessMapping(kind, table.heads))
    return { rows: table.rows.length, good: good.length, bad } satisfies GearCheck
  },
})
