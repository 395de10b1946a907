import type { Knex } from 'knex'

/**
 * A migration that changed nothing but the default version of a document: what stands is brought up as it is read. Written while every version had one;
 * since 011 there is no default, and a version of the document alone needs no migration. They stay because databases have noted their names.
 */
export function documentVersion(version: number): Knex.Migration {
  const set = (to: number) => (knex: Knex): Promise<void> => knex.raw(`alter table jobs alter column version set default ${to}`)
  return { up: set(version), down: set(version - 1) }
}
