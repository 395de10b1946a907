import { expect, test } from '@jest/globals'
import { unstatedModel } from '#core/gear/models'
import { appliedWords, finderWords, leadsWords, modelsText, outputText } from './amplifierWords'
import type { Rank } from './amplifierFinder'

const left = (isUnfed: boolean) => ({ line: 'A1', why: 'x', isUnfed })
const model = (count: number) => ({ ...unstatedModel('amplifier', 'M'), outputs: [{ count, points: [], lines: [{ lineV: 70.71, powerW: 100 }], floorOhm: null, valve: null }] })
const set = { leads: ['price'] as Rank[], models: [], assignment: [], price: 1, spareW: 1, proven: true }
test.each<[string, string, string]>([
  ['one lead', leadsWords({ leads: ['price'] }), 'Least money'],
  ['two', leadsWords({ leads: ['price', 'units'] }), 'Least money and fewest units'],
  ['all', leadsWords({ leads: ['price', 'units', 'spare'] }), 'Least money, fewest units and most to spare'],
  ['models', modelsText([{ name: 'A', count: 2, at: 0 }, { name: 'B', count: 1, at: 1 }]), '2 × A, B'],
  ['the one output of the one unit', outputText(model(1), 1, 1), 'M'],
  ['of several units', outputText(model(1), 3, 2), 'M, no. 2'],
  ['of several outputs', outputText(model(4), 1, 3), 'M, output 3'],
  ['of both', outputText(model(4), 2, 5), 'M, no. 2, output 1'],
  ['in and out', appliedWords({ edit: null, added: ['Four', 'Four', 'One'], removed: ['Amplifier A'], moved: 3, unplaced: [] }), '2 × Four, One in; Amplifier A out; 3 lines moved over'],
  ['one line', appliedWords({ edit: null, added: [], removed: [], moved: 1, unplaced: ['Radio'] }), '1 line moved over; say anew where Radio comes in'],
  ['ratings alone', appliedWords({ edit: null, added: [], removed: [], moved: 0, unplaced: [] }), 'outputs rated as the models are'],
  ['an empty library', finderWords({ sets: [], refused: [], left: [], lacks: null }, 0), 'The library has no amplifier yet.'],
  ['all fed', finderWords({ sets: [set], refused: [], left: [], lacks: null }, 3), 'Every line is fed. Proven: no other set does it for less money, with fewer units, or, for up to a quarter more, with more to spare. Two outputs are bridged for loads of ohms, not for a line of constant volts.'],
  ['some not asked for', finderWords({ sets: [set], refused: [], left: [left(false)], lacks: null }, 3), 'Lines of which not enough is known are left as they are; the others are fed, and proven:'],
  ['unfed', finderWords({ sets: [], refused: [], left: [left(true)], lacks: null }, 3), 'No set of these amplifiers feeds every line.'],
  ['nothing known', finderWords({ sets: [], refused: [], left: [left(false)], lacks: null }, 3), 'Nothing can be asked for yet: of no line enough is known.'],
  ['inputs that none has', finderWords({ sets: [], refused: [], left: [], lacks: 'inputs for 2 microphones' }, 3), 'No set of these amplifiers feeds every line and has inputs for 2 microphones, as far as their inputs and zones are stated. A mixer before them, or fewer asked for.'],
  ['no line', finderWords({ sets: [], refused: [], left: [], lacks: null }, 3), 'No line with speakers yet.'],
])('%s', (_, said, wanted) => expect(said).toBe(wanted))
