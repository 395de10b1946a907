import { coilCount } from '#core/job/tree'
import { faultAt, type FaultDefinition } from './fault'

/**
 * Its pair is on the other way round, at its terminals or somewhere before: right ohms, and it plays. Only of speakers that have others beside them
 * on the line: of one alone nobody hears it.
 */
export const turnedRound: FaultDefinition = {
  kind: 'turned-round',
  prior: 2,
  candidates: (_, speakers) => speakers.length < 2 ? [] : speakers.map(s => faultAt('turned-round', s.id)),
  // No meter of ohms sees it.
  change: chain => chain,
  coil: { right: 1 },
}

/** One coil of several on one cone against the others: what one pushes the other pulls. Right ohms, and next to nothing is heard. */
export const coilOpposed: FaultDefinition = {
  kind: 'coil-opposed',
  prior: 1,
  candidates: (_, speakers) => speakers.filter(s => coilCount(s.load) > 1).map(s => faultAt('coil-opposed', s.id)),
  change: chain => chain,
  coil: { right: 1 },
  ownPart: 0,
}
