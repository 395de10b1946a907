import { createHash } from 'node:crypto'
import { fingerprintRows } from '#core/door/codeAddress'

/**
 * What a phone is told before it can come in over HTTPS: how it takes the authority that vouches for this server, and how one sees that it is the right one.
 * Served over plain HTTP, on a port of its own, where nothing else is: whoever is between could change it, which is why the fingerprint is compared.
 */
export interface FirstStep { origin: string, fingerprint: string, authority: string }
interface Answer { status: number, headers: Record<string, string>, body: string | Buffer }

/** The name of the file: phones tell by it what it is. */
const FILE = '/plain-match.crt'
const escaped = (text: string) => text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('"', '&quot;')

export function firstStepAnswer(method: string, url: string, step: FirstStep): Answer {
  if (method !== 'GET' && method !== 'HEAD') return text(405, 'Nothing is taken here.')
  if (url === FILE) {
    return { status: 200, headers: { 'content-type': 'application/x-x509-ca-cert', 'content-disposition': 'attachment; filename="plain-match.crt"' }, body: step.authority }
  }
  if (url !== '/') return text(404, 'There is nothing here but the first page.')
  const html = page(step)
  const style = createHash('sha256').update(STYLE).digest('base64')
  return {
    status: 200,
    headers: {
      'content-type': 'text/html; charset=utf-8', 'cache-control': 'no-store', 'x-content-type-options': 'nosniff',
      'content-security-policy': `default-src 'none'; style-src 'sha256-${style}'; frame-ancestors 'none'; base-uri 'none'; form-action 'none'`,
    },
    body: html,
  }
}
const text = (status: number, body: string): Answer => ({ status, headers: { 'content-type': 'text/plain; charset=utf-8' }, body })

const STYLE = `body{margin:0 auto;padding:22px 20px 60px;max-width:34em;font:18px/1.5 system-ui,sans-serif;background:#f6f1e8;color:#211d18}
h1{font-size:22px;line-height:1.25}h2{font-size:18px;margin:26px 0 4px;padding-top:12px;border-top:1px solid #c9bfae}a{color:inherit}
.take,.in{display:inline-block;padding:12px 18px;border:1.5px solid #211d18;font-weight:700;text-decoration:none;margin:6px 0}
code{display:block;font:15px/1.6 ui-monospace,monospace;white-space:nowrap;overflow-x:auto;border:1px solid #c9bfae;padding:8px 12px;margin:8px 0}li{margin:6px 0}
@media (prefers-color-scheme:dark){body{background:#191613;color:#ece4d6}.take,.in{border-color:#ece4d6}h2,code{border-color:#4a4238}}`

function page({ origin, fingerprint }: FirstStep): string {
  return `<!doctype html><html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width, initial-scale=1">
<title>Before this phone comes in · Plain Match</title><style>${STYLE}</style></head><body>
<h1>Before this phone comes in</h1>
<p>Plain Match is served here by a machine of your own firm, not by a public one. So that this phone can tell it from another, and starts it where there is
no reception, it takes once what that machine vouches with. It vouches for <b>${escaped(new URL(origin).hostname)}</b> and for nothing else.</p>
<h2>1 · Take it</h2><p><a class="take" href="${FILE}">take the certificate</a></p>
<h2>2 · Compare</h2><p>The phone shows a fingerprint (SHA-256) of what it takes, under “details”. It must be the one that the desk shows:</p>
<code>${fingerprintRows(fingerprint).map(escaped).join('<br>')}</code><p>Where a single pair differs: do not go on, and tell whoever keeps the machine.</p>
<h2>3 · Let the phone trust it</h2><ul>
<li>Where the phone says <i>profile loaded</i>: settings, general, device management: install it. Then settings, general, about, certificate trust: switch it on.</li>
<li>Where it says that it is to be installed in the settings: security, further settings, install a certificate, <i>CA certificate</i>, choose the file.</li>
<li>On a computer: the browser’s settings, security, certificates, <i>authorities</i>, bring in, trusted for web pages.</li></ul>
<h2>4 · Come in</h2><p><a class="in" href="${escaped(origin)}">${escaped(origin)}</a></p><p>It asks for six digits that the desk shows.</p>
</body></html>`
}
