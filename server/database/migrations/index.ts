import type { Knex } from 'knex'
import * as jobs from './001-jobs'
import * as records from './002-records'
import * as faults from './003-more-faults'
import * as taken from './004-how-taken'
import * as kinds from './005-kinds'
import * as gear from './006-gear'
import * as controls from './007-controls'
import * as spaces from './008-spaces'
import * as lowImpedance from './009-low-impedance'
import * as bands from './010-bands'

/** Every migration by its name, in order. Imported, not read from a folder: the built server and the scripts run the very same. */
const MIGRATIONS: Record<string, Knex.Migration> = {
  '001-jobs': jobs, '002-records': records, '003-more-faults': faults, '004-how-taken': taken, '005-kinds': kinds, '006-gear': gear,
  '007-controls': controls, '008-spaces': spaces, '009-low-impedance': lowImpedance, '010-bands': bands,
}

export const migrationSource: Knex.MigrationSource<string> = {
  getMigrations: () => Promise.resolve(Object.keys(MIGRATIONS)),
  getMigrationName: name => name,
  getMigration: name => Promise.resolve(MIGRATIONS[name]!),
}
