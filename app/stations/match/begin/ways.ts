/** What a job may begin with, in the order in which most begin. */
export type Way = 'room' | 'hanging' | 'amplifier' | 'table' | 'line'
export const WAYS: readonly { way: Way, says: string, then: string, hasForm: boolean }[] = [
  { way: 'room', says: 'A room', then: 'its use, floor and height say which speakers, how many and how loud', hasForm: false },
  { way: 'hanging', says: 'Speakers that hang already', then: 'how many, on which tap or of what impedance; the amplifier comes later', hasForm: true },
  { way: 'amplifier', says: 'An amplifier', then: 'its outputs become the rails, and speakers hang on them', hasForm: false },
  { way: 'table', says: 'A table', then: 'pasted from a spreadsheet, a speaker a row', hasForm: true },
  { way: 'line', says: 'A typed line', then: '12 x 5 W on 70 V 120 W', hasForm: true },
]
