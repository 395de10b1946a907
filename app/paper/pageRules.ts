/** How the browser lays sheets on pages: their size, and in the margin whose they are and which of how many. */

export const PAPER_SIZES = [{ value: 'A4', says: 'A4' }, { value: 'letter', says: 'Letter' }] as const
export type PaperSize = typeof PAPER_SIZES[number]['value']

/** A text as it stands between quotes in a style sheet: nothing in a name of a job ends it. */
export function cssString(text: string): string {
  return `"${[...text].map(letter => /[\p{L}\p{N} .,;:–-]/u.test(letter) ? letter : `\\${letter.codePointAt(0)!.toString(16)} `).join('')}"`
}

export function pageRules(size: PaperSize, jobName: string, date: string): string {
  // Black also where the screen is set for the night.
  const look = 'font: 8.5pt sans-serif; color: #000'
  const left = `@bottom-left { content: ${cssString(`${jobName} · ${date}`)}; ${look} }`
  const right = `@bottom-right { content: "page " counter(page) " of " counter(pages); ${look} }`
  const margins = `margin: 14mm 12mm 16mm; ${left} ${right}`
  return `@page { size: ${size} portrait; ${margins} } @page sideways { size: ${size} landscape }`
}
