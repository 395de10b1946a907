import { nameText, noteText } from '#core/quantity/fields'

/** What a job is called, and what is to be known of it. */
export const detailFields = { name: nameText, note: noteText }
