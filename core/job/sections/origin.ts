import { z } from 'zod'
import { idText } from '#core/quantity/fields'

const versionNumber = z.int().min(1).max(1_000_000)

/** The version of the library's model that something in a job was made by, and the newest one that was looked at and not taken. */
export const originSchema = z.strictObject({ modelId: idText, version: versionNumber, passed: versionNumber.nullable() })
export type Origin = z.infer<typeof originSchema>
