import { coilCount } from '#core/job/tree'
import { faultAt, type FaultDefinition } from './fault'

/**
 * Its pair is on the other way round at its own terminals: right ohms, and it plays. Only of speakers that have others beside them on the line: of one
 * alone nobody hears it.
 */
export const turnedRound: FaultDefinition = {
  kind: 'turned-round',
  looks: 0.6,
  prior: 2,
  why: 'two conductors, one chance each; nobody hears it until a neighbour plays',
  candidates: (_, speakers) => speakers.length < 2 ? [] : speakers.map(s => faultAt('turned-round', s.id)),
  // No meter of ohms sees it.
  change: wiring => wiring,
  coil: { right: 1 },
  // Thin beside its neighbours: one of two is the other way round.
  heard: { plays: 0.55, thin: 0.4, quiet: 0.05 },
  isReversed: true,
}

/** One coil of several on one cone against the others: what one pushes the other pulls. Right ohms, and next to nothing is heard. */
export const coilOpposed: FaultDefinition = {
  kind: 'coil-opposed',
  looks: 0.5,
  isOfUnit: true,
  prior: 1,
  why: 'four tabs on one unit, and a sheet that is read once',
  candidates: (_, speakers) => speakers.filter(s => coilCount(s.load) > 1).map(s => faultAt('coil-opposed', s.id)),
  change: wiring => wiring,
  coil: { right: 1 },
  ownPart: 0,
  heard: { silent: 0.75, quiet: 0.2, thin: 0.05 },
}
