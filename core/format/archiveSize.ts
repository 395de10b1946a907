/** Bytes; more than the largest job with as many photos as it can hold. Apart, so that a page can ask without the rest of the format. */
export const MOST_ARCHIVE_BYTES = 270_000_000
