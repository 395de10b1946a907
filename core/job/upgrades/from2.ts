import type { Upgrade } from './step'

/**
 * Version 2 knew fewer kinds of fault, and a repair always named a speaker or a group. Version 3 adds kinds, and a repair of the
 * whole line (`nodeId` null). All that version 2 wrote stands as it is.
 */
export const moreFaults: Upgrade = { document: document => ({ document, remarks: [] }), edit: edit => edit }
