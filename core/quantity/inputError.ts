/**
 * What a person typed cannot be used. Carries where, and what could stand there instead, so that an interface
 * can point at the very character; the message alone is a whole sentence.
 */
export class InputError extends Error {
  override name = 'InputError'

  constructor(
    message: string,
    /** Zero-based character in the text that was read. */
    readonly position: number,
    /** What could stand at that character, each as a person would type it. */
    readonly expected: readonly string[],
  ) {
    super(message)
  }
}
