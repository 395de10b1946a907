import type { Browser } from './browser'

/**
 * Runs in the page: every piece of text in sight, with what is wrong with its place. A text is cut when its own box, or a box around it
 * that hides what is over, ends before it; out of the window when it ends beyond its width; overlapping when it lies over another text.
 * What scrolls may end outside; what is said to be shortened (an ellipsis) must have its whole as a title.
 */
export const FIND_BAD_TEXT = `
const bad = []
const texts = []
const shown = (e) => {
  if (!e.checkVisibility({ contentVisibilityAuto: true, opacityProperty: true, visibilityProperty: true })) return false
  for (let p = e; p; p = p.parentElement) if (getComputedStyle(p).clipPath === 'inset(50%)') return false
  return true
}
const walker = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT)
const SLACK = 1.5
while (walker.nextNode()) {
  const node = walker.currentNode
  const words = node.textContent.trim()
  const e = node.parentElement
  if (words === '' || !e || e.closest('script,style,title,option,[aria-hidden=true]') || !shown(e)) continue
  const range = document.createRange()
  range.selectNodeContents(node)
  const boxes = [...range.getClientRects()].filter(b => b.width > 0.5 && b.height > 0.5)
  if (boxes.length === 0) continue
  // What an ancestor hides or scrolls away is looked at only as far as it is in sight.
  let clip = { left: 0, top: -1e6, right: innerWidth, bottom: 1e6 }
  let isShortened = null
  let scrolls = false
  for (let p = e; p; p = p.parentElement) {
    const s = getComputedStyle(p)
    if (s.overflowX === 'visible' && s.overflowY === 'visible') continue
    if (p === document.documentElement || p === document.body) continue
    const r = p.getBoundingClientRect()
    if (/auto|scroll/.test(s.overflowX + s.overflowY)) scrolls = true
    if (s.textOverflow === 'ellipsis' && isShortened === null) isShortened = p
    clip = { left: Math.max(clip.left, r.left), top: Math.max(clip.top, r.top), right: Math.min(clip.right, r.right), bottom: Math.min(clip.bottom, r.bottom) }
  }
  for (const b of boxes) {
    const gone = b.right <= clip.left || b.left >= clip.right || b.bottom <= clip.top || b.top >= clip.bottom
    const over = b.left < clip.left - SLACK || b.right > clip.right + SLACK || b.top < clip.top - SLACK || b.bottom > clip.bottom + SLACK
    const name = '“' + words.slice(0, 40) + '”'
    if (gone) { if (!scrolls && !e.closest('.words') && b.left >= innerWidth) bad.push('out of the window: ' + name); continue }
    if (over && !scrolls) {
      if (isShortened && (isShortened.title || isShortened.closest('[title]'))) { /* shortened, its whole is at hand */ }
      else bad.push('cut: ' + name)
    }
    // What lies over the page on purpose (a sheet, a menu, keys for the thumb) is a layer of its own.
    let layer = null
    for (let p = e; p && !layer; p = p.parentElement) if (/fixed|sticky/.test(getComputedStyle(p).position) || p.matches('.items, .p-contextmenu, .said')) layer = p
    texts.push({ name, e, layer, left: Math.max(b.left, clip.left), right: Math.min(b.right, clip.right), top: Math.max(b.top, clip.top), bottom: Math.min(b.bottom, clip.bottom) })
  }
}
texts.sort((a, b) => a.top - b.top)
for (let i = 0; i < texts.length; i++) {
  const a = texts[i]
  for (let k = i + 1; k < texts.length && texts[k].top < a.bottom; k++) {
    const b = texts[k]
    if (a.e === b.e || a.layer !== b.layer) continue
    const w = Math.min(a.right, b.right) - Math.max(a.left, b.left)
    const h = Math.min(a.bottom, b.bottom) - Math.max(a.top, b.top)
    // Line boxes are taller than letters: two lines may share a few px without touching.
    if (w > 2 && h > 6) bad.push('over each other: ' + a.name + ' and ' + b.name)
  }
}
if (document.documentElement.scrollWidth > innerWidth + 1) bad.push('the page is wider than the window: ' + document.documentElement.scrollWidth)
return [...new Set(bad)]
`

/** Width, height, whether it is a phone or a tablet: pressed by a finger. */
export type Size = readonly [width: number, height: number, isTouched: boolean]
/** What every view is seen at by the tests; `npm run test:sizes` has more (ALL_SIZES). */
export const SIZES: readonly Size[] = [[390, 844, true], [844, 390, true], [1280, 800, false], [640, 400, false]]
export const ALL_SIZES: readonly Size[] = [
  [320, 568, true], [390, 844, true], [844, 390, true], [740, 360, true], [768, 1024, true], [1024, 768, false], [1280, 800, false], [1920, 1080, false],
  [640, 400, false],
]

/** Runs in the page: it stands still when two frames have been drawn and nothing moves. */
const STANDS_STILL = `
const done = arguments[arguments.length - 1]
const frames = (n, then) => n === 0 ? then() : requestAnimationFrame(() => frames(n - 1, then))
const stands = () => document.getAnimations().every(a => a.playState !== 'running')
const look = (tries) => frames(3, () => tries === 0 || stands() ? setTimeout(done, 40) : look(tries - 1))
look(40)`

/** What is wrong with the texts of the page that stands there, at each size. */
export async function badTextAt(browser: Browser, sizes: readonly Size[]): Promise<string[]> {
  const found: string[] = []
  for (const [width, height, mobile] of sizes) {
    await browser.size(width, height, mobile)
    await browser.driver.executeAsyncScript(STANDS_STILL)
    found.push(...(await browser.run<string[]>(FIND_BAD_TEXT)).map(bad => `${width} × ${height}: ${bad}`))
  }
  return found
}
