import { fileURLToPath } from 'node:url'

/** The project's own folder. Every script goes there first: run from elsewhere, it would install packages there. */
export const PROJECT = fileURLToPath(new URL('../..', import.meta.url))
process.chdir(PROJECT)
