import type { Hidden } from './world'

/** What is wrong in the virtual copy of the demo, and on no plan of it. */
export const HIDDEN: readonly Hidden[] = [
  { nodeId: 'fh-fern-07', fault: 'coil-open' },
  { nodeId: 'fh-orchid-01', fault: 'coil-high' },
  { nodeId: 'fh-ticket-07', fault: 'leak' },
  { nodeId: 'mg-saloon-02', fault: 'coil-low' },
]
