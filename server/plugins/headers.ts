import { createHash } from 'node:crypto'
import { defineNitroPlugin } from 'nitropack/runtime'

/**
 * What a browser may do with our pages. The one inline script that the framework writes is named by its hash; the library that
 * does such things for pages drawn on the server has no way with a page that is only a shell. Inline styles stay allowed: the
 * component library sets its own while the page runs.
 */
const scriptsIn = (html: string) => [...html.matchAll(/<script(?![^>]*\ssrc=)[^>]*>([\s\S]*?)<\/script>/g)].map(([, text]) => text!)
const hashOf = (text: string) => `'sha256-${createHash('sha256').update(text).digest('base64')}'`

export function policyFor(html: string): string {
  return [
    `default-src 'self'`, `script-src 'self' ${scriptsIn(html).map(hashOf).join(' ')}`.trimEnd(), `style-src 'self' 'unsafe-inline'`, `img-src 'self' data:`,
    `font-src 'self' data:`, `connect-src 'self'`, `worker-src 'self'`, `object-src 'none'`, `base-uri 'none'`, `form-action 'self'`, `frame-ancestors 'none'`,
  ].join('; ')
}

export default defineNitroPlugin((nitro) => {
  nitro.hooks.hook('render:response', (response) => {
    const headers = response.headers as Record<string, string> | undefined ?? {}
    delete headers['x-powered-by']
    response.headers = headers
    if (typeof response.body === 'string') headers['content-security-policy'] = policyFor(response.body)
  })
})
