import { faultAt, type FaultDefinition } from './fault'

/** What comes and goes inside one unit: right today, open tomorrow. Its ohms as drawn stand for the days on which it is right. */
export const comesAndGoes: FaultDefinition = {
  kind: 'comes-and-goes',
  looks: 0.3,
  isOfUnit: true,
  prior: 1.5,
  why: 'a lead-out or a joint on its way to open; rarer than open, since it is seen only while it changes',
  candidates: (_, speakers) => speakers.map(s => faultAt('comes-and-goes', s.id)),
  change: wiring => wiring,
  coil: { right: 0.5, high: 0.25, open: 0.25 },
  heard: { 'comes-and-goes': 0.5, 'silent': 0.15, 'plays': 0.2, 'scratchy': 0.1, 'quiet': 0.05 },
  isUnsteady: true,
}

/** A jack, a plug or a switch that does not touch well: the unit is right. */
export const dirtyContact: FaultDefinition = {
  kind: 'dirty-contact',
  looks: 0.4,
  prior: 1.5,
  why: 'what is plugged and unplugged wears and tarnishes',
  candidates: (_, speakers) => speakers.map(s => faultAt('dirty-contact', s.id)),
  change: wiring => wiring,
  coil: { right: 1 },
  heard: { 'scratchy': 0.35, 'comes-and-goes': 0.35, 'plays': 0.15, 'quiet': 0.15 },
  isUnsteady: true,
}
