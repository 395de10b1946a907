/** The time of day as people say it; with its day where it was another one. Empty where it is not known. */
export function timeOf(at: number | undefined, now = new Date()): string {
  if (at === undefined) return ''
  const then = new Date(at)
  const time = then.toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' })
  return then.toDateString() === now.toDateString() ? time : `${then.toLocaleDateString('en-GB', { day: 'numeric', month: 'short' })}, ${time}`
}
