/** The address that a picture of a code leads to. The code stands behind #: it is sent to nobody on the way. */
export function codeAddress(origin: string, code: string): string {
  return `${origin}/let-in#${code}`
}

/** The code of such an address, from what stands behind #; '' where there is none. */
export function codeOfAddress(hash: string): string {
  return /^#(\d{6})$/.exec(hash)?.[1] ?? ''
}

/** A fingerprint in rows of eight pairs, as one compares it by eye: "9A AF 0B 5C 75 E5 78 14". */
export function fingerprintRows(fingerprint: string): string[] {
  const pairs = fingerprint.split(':')
  return Array.from({ length: Math.ceil(pairs.length / 8) }, (_, k) => pairs.slice(k * 8, k * 8 + 8).join(' '))
}
