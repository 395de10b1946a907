import { mkdirSync, writeFileSync } from 'node:fs'
import { schemaFiles } from './lib/schemaFiles'

/** Writes docs/schemas from the Zod schemas. A unit test holds them against each other. */
mkdirSync('docs/schemas', { recursive: true })
for (const [name, text] of Object.entries(schemaFiles())) writeFileSync(`docs/schemas/${name}`, text)
