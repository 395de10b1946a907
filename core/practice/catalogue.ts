/**
 * Of the catalogue that hidden faults are drawn from, of the exercises and of how both are drawn: raised with each change that makes another rig of the
 * same code. A test holds the rigs of a table of codes against their hashes.
 */
export const CATALOGUE_VERSION = 4
