/** Labels of speakers beside each other as one: "01–14"; "01 … 20" where they do not count on. */
export function foldLabel(labels: readonly string[]): string {
  const [first, last] = [labels[0]!, labels.at(-1)!]
  const ends = [/^(.*?)(\d+)$/.exec(first), /^(.*?)(\d+)$/.exec(last)] as const
  const counts = ends[0] !== null && ends[1] !== null && ends[0][1] === ends[1][1] && Number(ends[1][2]) - Number(ends[0][2]) === labels.length - 1
  return counts ? `${first}–${last}` : `${first} … ${last}`
}
