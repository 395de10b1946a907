interface Standing { waiting: number, isAway: boolean, isStorageFull: boolean, sentPart: number | null }

/** What is on the server and what is not, in the words of the jobs' pages. */
export function keptWords({ waiting, isAway, isStorageFull, sentPart }: Standing): string {
  if (waiting === 0) return 'saved'
  const full = isStorageFull ? '; this device cannot keep changes (its storage is full or closed): they live only until this page is left' : ''
  if (isAway) return `server away: ${waiting} kept here to send${full}`
  // What has gone out is still to be written: it is not there before the answer.
  const far = sentPart === null ? '' : sentPart < 1 ? ` ${Math.floor(100 * sentPart)} % sent` : ' sent, being written'
  return `saving…${far}${full}`
}
