import type { Upgrade } from './step'

/** Version 6 knew no spaces: the job has none until somebody draws one. No edit of version 6 is written otherwise now. */
export const noSpaces: Upgrade = {
  document: document => ({ document: { ...document, spaces: [] }, remarks: [] }),
  edit: edit => edit,
}
