/** A drawing of the page as a picture file: its colours and type go along, since the page's styles do not. */

const TAKEN = ['fill', 'fill-opacity', 'stroke', 'stroke-width', 'stroke-dasharray', 'stroke-linejoin', 'opacity', 'font-size', 'font-weight', 'font-family', 'text-anchor', 'paint-order'] as const

export function svgText(svg: SVGSVGElement): string {
  const copy = svg.cloneNode(true) as SVGSVGElement
  const [from, to] = [svg.querySelectorAll('*'), copy.querySelectorAll('*')]
  from.forEach((element, k) => {
    const style = getComputedStyle(element)
    for (const name of TAKEN) {
      const value = style.getPropertyValue(name)
      if (value !== '') to[k]!.setAttribute(name, value)
    }
    to[k]!.removeAttribute('class')
  })
  const { width, height } = svg.viewBox.baseVal
  copy.setAttribute('xmlns', 'http://www.w3.org/2000/svg')
  copy.setAttribute('width', String(width))
  copy.setAttribute('height', String(height))
  for (const name of ['class', 'tabindex', 'style']) copy.removeAttribute(name)
  const paper = document.createElementNS('http://www.w3.org/2000/svg', 'rect')
  for (const [name, value] of Object.entries({ width: '100%', height: '100%', fill: getComputedStyle(document.body).backgroundColor })) paper.setAttribute(name, value)
  copy.prepend(paper)
  return new XMLSerializer().serializeToString(copy)
}

export function saveText(text: string, name: string, type: string): void {
  const link = document.createElement('a')
  link.href = URL.createObjectURL(new Blob([text], { type }))
  link.download = name
  link.click()
  setTimeout(() => URL.revokeObjectURL(link.href), 1000)
}
