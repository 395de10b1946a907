import type { Browser } from './browser'

/**
 * Runs in the page: what can be pressed and is under 44 × 44 px (WCAG 2.5.5), and names for a screen reader that do not hold the words that are seen
 * (WCAG 2.5.3). Words in the middle of a sentence that can be pressed are let be, as they are there. A field's label is part of it where it lies around it.
 */
const FIND_OUT_OF_REACH = `
const [least] = arguments
const bad = []
const PRESSED = 'a[href], button, input:not([type=hidden]), select, textarea, summary, [role=button], [role=radio], [role=tab], [role=option], [role=menuitem], [role=slider], [role=checkbox], [role=combobox]'
const shown = (e) => {
  if (!e.checkVisibility({ contentVisibilityAuto: true, opacityProperty: true, visibilityProperty: true })) return false
  for (let p = e; p; p = p.parentElement) if (getComputedStyle(p).clipPath === 'inset(50%)') return false
  return true
}
const plain = (words) => words.toLowerCase().replace(/[^\\p{L}\\p{N}.,%]+/gu, ' ').trim()
const ownText = (e) => {
  const found = []
  const walker = document.createTreeWalker(e, NodeFilter.SHOW_TEXT)
  while (walker.nextNode()) {
    const p = walker.currentNode.parentElement
    if (!p.closest('title, .keycap, .marks, .rank') && shown(p)) found.push(walker.currentNode.textContent)
  }
  return found
}
for (const e of document.querySelectorAll(PRESSED)) {
  if (!shown(e) || e.closest('[aria-hidden=true]')) continue
  const words = (e.getAttribute('aria-label') || e.textContent || e.id || e.className).trim().replace(/\\s+/g, ' ').slice(0, 50)
  const name = e.getAttribute('aria-label')
  // What a list or a scale stands at is its value, not its name.
  if (name !== null && !e.matches('[role=combobox], [role=slider]')) {
    const spoken = plain(name)
    for (const text of ownText(e)) {
      const seen = plain(text)
      if (seen !== '' && !spoken.includes(seen)) bad.push('name without its words: ' + JSON.stringify(name.slice(0, 60)) + ' is seen as ' + JSON.stringify(text.trim()))
    }
  }
  const label = e.closest('label')
  const more = e.id ? document.querySelector('[data-reach="' + e.id + '"]') : null
  const r = (label ?? more ?? e.closest('.p-select') ?? e).getBoundingClientRect()
  if (r.width < 1 || r.height < 1) continue
  // In the middle of a sentence: text of its own stands beside it in the same line of words.
  const beside = [...e.parentElement.childNodes].some(n => n.nodeType === 3 && n.textContent.trim().length > 1) && e.parentElement.matches('p, span, li, dd, legend, label')
  if (beside || e.parentElement.closest('p')) continue
  // What lies around it may be pressed for it.
  const grown = getComputedStyle(e, '::before')
  const by = (side) => grown.content !== 'none' && grown.position === 'absolute' ? Math.max(0, -parseFloat(grown[side]) || 0) : 0
  const width = r.width + by('left') + by('right')
  const height = r.height + by('top') + by('bottom')
  if (width < least - 0.6 || height < least - 0.6) bad.push('small: ' + e.tagName.toLowerCase() + '.' + String(e.className.baseVal ?? e.className).split(' ').slice(0, 2).join('.') + ' “' + words + '” ' + width.toFixed(0) + ' × ' + height.toFixed(0))
}
return [...new Set(bad)]`

/** What a finger cannot press surely, and what is named otherwise than it is seen, on the page that stands there. */
export const outOfReach = (browser: Browser, leastPx: number): Promise<string[]> => browser.run<string[]>(FIND_OUT_OF_REACH, leastPx)
