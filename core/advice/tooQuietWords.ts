/** "Dining too quiet", "3 spaces too quiet"; nothing where none is. */
export const tooQuietWords = (names: readonly string[]): string => names.length === 0 ? '' : names.length <= 2 ? `${names.join(' and ')} too quiet` : `${names.length} spaces too quiet`
