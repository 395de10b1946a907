import type { Job } from '#core/job/schema'
import { fernhollow } from './fernhollow'
import { withKinds } from './gear'
import { bandstand } from './bandstand'
import { loft } from './loft'
import { marigold } from './marigold'
import { withSpaces } from './spaces'

/** The demo jobs, with ids that stay the same over a reset. */
export const demoJobs: readonly { id: string, job: Job }[] = [
  { id: '5e0f1a52-7c1d-4b52-9a53-0b6b8f1f2a01', job: withSpaces(withKinds(fernhollow)) },
  { id: '5e0f1a52-7c1d-4b52-9a53-0b6b8f1f2a02', job: withKinds(marigold) },
  { id: '5e0f1a52-7c1d-4b52-9a53-0b6b8f1f2a03', job: withKinds(bandstand) },
  { id: '5e0f1a52-7c1d-4b52-9a53-0b6b8f1f2a04', job: withKinds(loft) },
]
