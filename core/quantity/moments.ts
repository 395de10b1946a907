/** From one moment to another, ms; both as ISO 8601 texts. */
// Texts are read here, no clock is.
// eslint-disable-next-line no-restricted-globals
export const msBetween = (from: string, to: string): number => Date.parse(to) - Date.parse(from)
