import { expect, test } from '@jest/globals'
import { HEAVY_BODY, weighed } from './heavy'

const ID = '00000000-0000-4000-8000-00000000000A'
const asked = (method: string, path: string, contentLength?: string, isChunked = false) => weighed({ method, path, contentLength, isChunked })

test.each<[string, ReturnType<typeof asked>, boolean | string]>([
  ['a small edit: its job decides', asked('POST', `/api/jobs/${ID}/sync`, '900'), ID.toLowerCase()],
  ['a large one', asked('POST', `/api/jobs/${ID}/sync`, String(HEAVY_BODY + 1)), true],
  ['as large as is still light', asked('POST', '/api/jobs', String(HEAVY_BODY)), false],
  ['of a length not said', asked('POST', '/api/jobs', undefined, true), true],
  ['a job opened', asked('GET', `/api/jobs/${ID}?by=x`), ID.toLowerCase()],
  ['its file', asked('GET', `/api/jobs/${ID}/file`), ID.toLowerCase()],
  ['deleted: it is looked into', asked('DELETE', `/api/jobs/${ID}`), ID.toLowerCase()],
  ['archived: it is not', asked('PATCH', `/api/jobs/${ID}`, '20'), false],
  ['the list', asked('GET', '/api/jobs?page=0'), false],
  ['what is no id', asked('GET', '/api/jobs/x'), false],
  ['a library whole', asked('GET', '/api/gear/whole?kind=speaker'), true],
  ['its list', asked('GET', '/api/gear?kind=speaker'), false],
  ['ten thousand models', asked('POST', '/api/gear/acts', '9000000'), true],
])('%s', (_, found, wanted) => expect(found).toBe(wanted))
