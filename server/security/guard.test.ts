import { Hono } from 'hono'
import pino from 'pino'
import { problemResponse } from '../problem'
import { ownHosts, protectiveHeaders, sameSiteOnly } from './guard'

const app = new Hono()
app.use(protectiveHeaders())
app.use(sameSiteOnly(ownHosts('192.0.2.7', 4180)))
app.all('*', (c) => c.text('in'))
app.onError((error, c) => problemResponse(c, error, pino({ level: 'silent' })))

const ask = async (headers: Record<string, string>, method = 'GET'): Promise<number> =>
  (await app.request('http://x/api', { method, headers })).status

test.each(['127.0.0.1:4180', 'localhost:4180', '[::1]:4180', '192.0.2.7:4180'])('%s is its own name', async (host) => {
  expect(await ask({ host })).toBe(200)
  expect(await ask({ host, origin: `http://${host}` }, 'POST')).toBe(200)
})

test.each(['127.0.0.1', 'localhost:80', 'localhost:4180.evil.example', 'evil.example', ''])(
  '%j is not',
  async (host) => {
    expect(await ask(host ? { host } : {})).toBe(421)
  },
)

test.each([
  [{ origin: 'http://localhost:4180' }, 403],
  [{ origin: 'https://127.0.0.1:4180' }, 403],
  [{ origin: 'null' }, 403],
  [{ 'sec-fetch-site': 'cross-site' }, 403],
  [{ 'sec-fetch-site': 'same-site' }, 403],
  [{ 'sec-fetch-site': 'none' }, 200],
  [{ 'sec-fetch-site': 'same-origin' }, 200],
])('from a page with %j: %p', async (headers, status) => {
  expect(await ask({ host: '127.0.0.1:4180', ...(headers as Record<string, string>) }, 'POST')).toBe(status)
})

test('following a link from elsewhere opens the page, but posts nothing', async () => {
  const foreign = { host: '127.0.0.1:4180', 'sec-fetch-site': 'cross-site', 'sec-fetch-mode': 'navigate' }
  expect(await ask(foreign)).toBe(200)
  expect(await ask(foreign, 'POST')).toBe(403)
})
