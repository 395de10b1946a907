import { rackOf } from '#core/advice/rack'
import { writeConductor } from '#core/gear/conductor'
import { NOTHING, NOT_KNOWN, type SheetMaker } from '../sheet'

/** Each device of the rack: what comes in where, and which conductor lies on which printed terminal. */
export const rack: SheetMaker = {
  id: 'rack', title: 'Rack', says: 'what comes in where, which conductor on which terminal',
  make: ({ job }) => ({
    ...NOTHING,
    before: ['Off and disconnected before anything is changed here. The mains side is a licensed person’s.'],
    empty: 'There is no amplifier yet.',
    tables: rackOf(job).flatMap(({ amplifier, inputs, outputs }) => {
      const caption = [amplifier.name, amplifier.place].filter(Boolean).join(', ')
      const ins = inputs.length === 0
        ? []
        : [{
            caption: `${caption}: in`, says: '', columns: [{ says: 'input' }, { says: 'for' }, { says: 'what comes in', isWide: true as const }],
            rows: inputs.map(i => ({ cells: [i.name, i.takes || NOT_KNOWN, [i.source ?? 'nothing', ...i.says].join(', ')] })),
          }]
      const outs = outputs.length === 0
        ? []
        : [{
            caption: `${caption}: out`, says: '',
            columns: [{ says: 'line', isWide: true as const }, { says: 'on plus' }, { says: 'conductor' }, { says: 'on minus' }, { says: 'conductor' }, { says: 'connector' }],
            rows: outputs.map(o => ({
              cells: [`${o.output.label} ${o.output.name}`.trim(), o.plus || '+', o.pair ? writeConductor(o.pair[0]) : NOT_KNOWN, o.minus || '−', o.pair ? writeConductor(o.pair[1]) : NOT_KNOWN, o.connector || NOT_KNOWN],
            })),
          }]
      return [...ins, ...outs]
    }),
  }),
}
