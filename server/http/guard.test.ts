import { describe, expect, test } from '@jest/globals'
import { isApi, refusalOf, type Asked } from './guard'

const asked = (more: Partial<Asked> = {}): Asked =>
  ({ method: 'POST', path: '/api/jobs', host: '127.0.0.1:4610', origin: 'http://127.0.0.1:4610', fetchSite: 'same-origin', contentType: 'application/json', ...more })
const answer = (more: Partial<Asked>, hosts: string[] = []) => refusalOf(asked(more), hosts)?.problem.status ?? 'taken'

describe('who may ask for what', () => {
  test.each<[string, Partial<Asked>, number | 'taken']>([
    ['our own page', {}, 'taken'], ['a program, which sends no such headers', { origin: undefined, fetchSite: undefined }, 'taken'],
    ['by name', { host: 'localhost:4610', origin: 'http://localhost:4610' }, 'taken'], ['in capitals', { host: 'LOCALHOST', origin: undefined }, 'taken'],
    ['version 6', { host: '[::1]:4610', origin: undefined }, 'taken'], ['a charset beside the type', { contentType: 'application/json; charset=utf-8' }, 'taken'],
    ['typed into the address bar', { method: 'GET', fetchSite: 'none', origin: undefined, contentType: undefined }, 'taken'],
    ['a link from elsewhere', { method: 'GET', path: '/jobs/x', fetchSite: 'cross-site', origin: undefined }, 'taken'],
    ['a foreign name, read', { method: 'GET', host: 'rebound.example:4610' }, 421], ['a foreign name, a page', { method: 'GET', path: '/', host: 'rebound.example' }, 421],
    ['a name that only begins like ours', { host: '127.0.0.1.example' }, 421], ['no name', { host: undefined }, 421],
    ['another site’s page', { fetchSite: 'cross-site' }, 403], ['a page of the same site, another port', { fetchSite: 'same-site' }, 403],
    ['another origin', { origin: 'http://elsewhere.example' }, 403], ['our address, another port', { origin: 'http://127.0.0.1:9' }, 403], ['an origin that is none', { origin: 'null' }, 403],
    ['a form', { contentType: 'application/x-www-form-urlencoded' }, 415], ['plain text', { contentType: 'text/plain' }, 415], ['no type', { contentType: undefined }, 415],
    ['deleting has no body', { method: 'DELETE', contentType: undefined }, 'taken'], ['deleting from elsewhere', { method: 'DELETE', fetchSite: 'cross-site' }, 403],
    ['an unknown method', { method: 'TRACE' }, 405], ['another unknown method', { method: 'PUT' }, 405],
  ])('%s', (_, more, status) => expect(answer(more)).toBe(status))

  test('names that it was told to answer to', () => expect([answer({ host: 'rack.lan:4610', origin: 'http://rack.lan:4610' }, ['rack.lan']), answer({ host: 'rack.lan' }, [])]).toEqual(['taken', 421]))
  test('what is an address of the programming interface', () => expect(['/api', '/api/', '/api?x', '/api/jobs', '/apiary', '/jobs/api'].map(isApi)).toEqual([true, true, true, true, false, false]))
})
