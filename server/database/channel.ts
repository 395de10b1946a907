/** Where servers of one database tell each other what has changed: of a job its revision, of the library that it has. */
export const CHANGES_CHANNEL = 'plain_match_changes'
