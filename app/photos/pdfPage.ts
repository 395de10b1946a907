import { getDocument, GlobalWorkerOptions, type PDFDocumentProxy } from 'pdfjs-dist'
import workerUrl from 'pdfjs-dist/build/pdf.worker.min.mjs?url'
import { MOST_PHOTO_PX } from '#core/job/sections/photos/schema'

/** A page of a PDF as a picture. Fetched when the first one is chosen: the library weighs more than the rest of the page. */
GlobalWorkerOptions.workerSrc = workerUrl

export interface OpenedPdf {
  pages: number
  /** @param page counts from 1. @throws Error where the page cannot be drawn */
  pageAsPicture: (page: number) => Promise<Blob>
  close: () => void
}

/** @throws Error where it is no PDF, is broken, or asks for a password */
export async function openPdf(file: Blob): Promise<OpenedPdf> {
  // What runs in a PDF is no part of a plan.
  const task = getDocument({ data: await file.arrayBuffer(), isEvalSupported: false, enableXfa: false })
  const pdf = await task.promise
  return { pages: pdf.numPages, pageAsPicture: page => drawn(pdf, page), close: () => void task.destroy() }
}

async function drawn(pdf: PDFDocumentProxy, number: number): Promise<Blob> {
  const page = await pdf.getPage(number)
  const { width, height } = page.getViewport({ scale: 1 })
  const viewport = page.getViewport({ scale: MOST_PHOTO_PX / Math.max(width, height) })
  const canvas = Object.assign(document.createElement('canvas'), { width: Math.round(viewport.width), height: Math.round(viewport.height) })
  await page.render({ canvas, viewport, background: 'white' }).promise
  return new Promise((resolve, reject) => canvas.toBlob(blob => blob ? resolve(blob) : reject(new Error('the page was not drawn')), 'image/png'))
}
