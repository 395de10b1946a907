import { shallowRef } from 'vue'

/**
 * What starts the page with no network. It is registered when all of this page is there, so that it takes nothing from the first picture; a newer program waits
 * until a person takes it, or until the last window of the old one is closed: what waits to be sent is brought up by it (core/job/upgrade.ts).
 */

/** Takes the newer program that is here, and reads the page anew; null while there is none. */
export const takeNewer = shallowRef<(() => void) | null>(null)
/** All that starts this page is on the device: it may be left while the server is away. */
export const startsOffline = shallowRef(false)
/** Why the page will not start without a network, in a sentence; '' where it will, or nothing is known yet. */
export const whyNotOffline = shallowRef('')

export function beginOffline(): void {
  if (!('serviceWorker' in navigator)) {
    whyNotOffline.value = isSecureContext
      ? 'This browser starts no page without a network.'
      : 'Without a network this page will not start here: a browser does that only over HTTPS, or on the machine that serves it.'
    return
  }
  const look = () => { startsOffline.value = navigator.serviceWorker.controller !== null }
  look()
  navigator.serviceWorker.addEventListener('controllerchange', look)
  void navigator.serviceWorker.register('/sw.js').then((registration) => {
    const offer = () => {
      const { waiting } = registration
      // The very first one takes over by itself.
      if (!waiting || !navigator.serviceWorker.controller) return
      takeNewer.value = () => {
        navigator.serviceWorker.addEventListener('controllerchange', () => location.reload(), { once: true })
        waiting.postMessage({ type: 'SKIP_WAITING' })
      }
    }
    // One that is on its way already when this page registers has been announced before anybody listened.
    const hear = () => registration.installing?.addEventListener('statechange', offer)
    offer()
    hear()
    registration.addEventListener('updatefound', hear)
  }).catch(() => {
    whyNotOffline.value = 'Without a network this page will not start here: the browser did not take what starts it.'
  })
}
