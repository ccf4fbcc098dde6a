import { createServer, type Server } from 'node:http'
import type { AddressInfo } from 'node:net'
import { patientFetch } from './patient-fetch'

/** A server that is busy so many times. */
let server: Server
let asked: string[]
let busy: number
let retryAfter: string
beforeAll(async () => {
  server = createServer((request, response) => {
    asked.push(request.method ?? '')
    if (asked.length <= busy) response.writeHead(503, { 'retry-after': retryAfter }).end('busy')
    else response.writeHead(200).end('there')
  })
  await new Promise<void>((done) => server.listen(0, '127.0.0.1', done))
})
afterAll(() => server.close())
beforeEach(() => {
  asked = []
  retryAfter = '0.02'
})
const url = (): string => `http://127.0.0.1:${(server.address() as AddressInfo).port}/`

test('a busy server is asked again when it says so', async () => {
  busy = 2
  expect(await (await patientFetch(url())).text()).toBe('there')
  expect(asked).toEqual(['GET', 'GET', 'GET'])
})

test('not for ever', async () => {
  busy = 100
  expect((await patientFetch(url())).status).toBe(503)
  expect(asked).toHaveLength(5)
})

test('what changes something is asked once', async () => {
  busy = 1
  expect((await patientFetch(url(), { method: 'POST' })).status).toBe(503)
  expect(asked).toEqual(['POST'])
})

test('given up while it waits', async () => {
  busy = 100
  const gone = new AbortController()
  // Long enough that it is still waiting, however slow the machine is.
  retryAfter = '9'
  server.once('request', (_, response) =>
    response.once('finish', () => setTimeout(() => gone.abort(new Error('gone')), 50)),
  )
  await expect(patientFetch(url(), { signal: gone.signal })).rejects.toThrow('gone')
  expect(asked).toHaveLength(1)
})
