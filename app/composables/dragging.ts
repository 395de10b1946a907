import { codeLater } from './fetchedLater'

/** What things are dragged with: nobody drags what is not drawn yet. */
export const dragging = codeLater(async () => {
  const [{ drag }, { select }] = await Promise.all([import('d3-drag'), import('d3-selection')])
  return { drag, select }
})
