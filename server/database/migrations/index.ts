import type { Knex } from 'knex'
import * as jobs from './001-jobs'
import * as records from './002-records'
import * as faults from './003-more-faults'
import * as taken from './004-how-taken'
import * as gear from './006-gear'
import * as lowImpedance from './009-low-impedance'
import * as bands from './010-bands'
import * as who from './011-who'
import * as gearActs from './012-gear-acts'
import * as weight from './013-weight'
import * as photos from './014-photos'
import * as harnessMaps from './015-harness-maps'
import * as devices from './016-devices'
import * as meters from './017-meters'
import * as practice from './018-practice'
import { documentVersion } from './documentVersion'

/**
 * Every migration by its name, in order. Imported, not read from a folder: the built server and the scripts run the very same. What only grows
 * needs none for a new table, a new field or a wider enum (database/growing.ts), gear none for a new field (broughtUp, core/gear/models.ts).
 */
export const MIGRATIONS: Readonly<Record<string, Knex.Migration>> = {
  '001-jobs': jobs, '002-records': records, '003-more-faults': faults, '004-how-taken': taken, '005-kinds': documentVersion(5), '006-gear': gear,
  '007-controls': documentVersion(6), '008-spaces': documentVersion(7), '009-low-impedance': lowImpedance, '010-bands': bands, '011-who': who,
  '012-gear-acts': gearActs, '013-weight': weight, '014-photos': photos, '015-harness-maps': harnessMaps, '016-devices': devices, '017-meters': meters, '018-practice': practice,
}

export const migrationSource: Knex.MigrationSource<string> = {
  getMigrations: () => Promise.resolve(Object.keys(MIGRATIONS)),
  getMigrationName: name => name,
  getMigration: name => Promise.resolve(MIGRATIONS[name]!),
}
