/** Says once that the database went away, and once that it is back: not with every request that met it. */
let isAway = false

export function noteAway(): void {
  if (isAway) return
  isAway = true
  console.error('The database does not answer. Windows keep their edits and send them when it does.')
}

export function noteAnswer(): void {
  if (!isAway) return
  isAway = false
  console.error('The database answers again.')
}
