/** A document that cannot be taken as a job: what is wrong and where in it. */
export class JobError extends Error {
  override name = 'JobError'
  constructor(message: string, readonly path: string, readonly expected: readonly string[] = []) {
    super(message)
  }
}
