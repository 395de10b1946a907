import { MOST_PHOTO_BYTES, MOST_PHOTO_PX } from '#core/job/sections/photos/schema'

/** A picture as a camera gives it, as it is kept: at most 1600 pixels and 400 kB. What else the camera wrote into it (place, time) does not come along. */
export interface Scaled { base64: string, widthPx: number, heightPx: number }

/** Sharpness that is tried, one after the other, until it is small enough. */
const QUALITIES = [0.82, 0.7, 0.55, 0.4]

/** @throws Error where the browser cannot read the file as a picture */
export async function scaleDown(file: Blob): Promise<Scaled> {
  const picture = await createImageBitmap(file, { imageOrientation: 'from-image' })
  try {
    for (let mostPx = MOST_PHOTO_PX; ; mostPx /= 1.5) {
      const { widthPx, heightPx } = sizeWithin(picture.width, picture.height, mostPx)
      const canvas = Object.assign(document.createElement('canvas'), { width: widthPx, height: heightPx })
      canvas.getContext('2d')!.drawImage(picture, 0, 0, widthPx, heightPx)
      for (const quality of QUALITIES) {
        const blob = await new Promise<Blob | null>(resolve => canvas.toBlob(resolve, 'image/jpeg', quality))
        if (blob && blob.size <= MOST_PHOTO_BYTES) return { base64: await base64Of(blob), widthPx, heightPx }
      }
    }
  }
  finally {
    picture.close()
  }
}

/** As large as it is, or with its longer side as long as may be. */
export function sizeWithin(widthPx: number, heightPx: number, mostPx: number): { widthPx: number, heightPx: number } {
  const factor = Math.min(1, mostPx / Math.max(widthPx, heightPx))
  return { widthPx: Math.max(1, Math.round(widthPx * factor)), heightPx: Math.max(1, Math.round(heightPx * factor)) }
}

function base64Of(blob: Blob): Promise<string> {
  return new Promise((resolve, reject) => {
    const reader = new FileReader()
    reader.onload = () => resolve(String(reader.result).replace(/^data:[^,]*,/, ''))
    reader.onerror = () => reject(reader.error ?? new Error('not read'))
    reader.readAsDataURL(blob)
  })
}
