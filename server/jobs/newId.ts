import { randomUUID } from 'node:crypto'

/** Ids inside a job: short enough to read in a file, long enough never to meet another. */
export function newId(): string {
  return randomUUID().replaceAll('-', '').slice(0, 16)
}
