/** The address that a picture of a code leads to. The code stands behind #: it is sent to nobody on the way. */
export function codeAddress(origin: string, code: string): string {
  return `${origin}/let-in#${code}`
}

/** The code of such an address, from what stands behind #; '' where there is none. */
export function codeOfAddress(hash: string): string {
  return /^#(\d{6})$/.exec(hash)?.[1] ?? ''
}
