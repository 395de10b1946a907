let last = 0

/** Now, in ms, and never the same twice: it orders what one window did. */
export function nextInstant(): number {
  last = Math.max(Date.now(), last + 0.01)
  return last
}
