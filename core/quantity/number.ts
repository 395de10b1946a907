/** A number with at most one decimal mark, point or comma: "3.6", "3,6", ".5". No sign: nothing measured here is negative. */
export const NUMBER = String.raw`(?:\d+(?:[.,]\d*)?|[.,]\d+)`

/** Value of text matched by NUMBER. */
export function numberOf(text: string): number {
  return Number(text.replace(',', '.'))
}
