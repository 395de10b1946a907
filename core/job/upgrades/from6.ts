import type { Upgrade } from './step'

/** Version 6 knew no spaces and no variants: the job has none until somebody draws or keeps one. No edit of version 6 is written otherwise now. */
export const noSpaces: Upgrade = {
  document: document => ({ document: { ...document, spaces: [], variants: [] }, remarks: [] }),
  edit: edit => edit,
}
