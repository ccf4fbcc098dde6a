// Who may ask, and what every answer carries.
import { request } from 'node:http'
import { readFileSync, statSync } from 'node:fs'
import { join } from 'node:path'
import { address, call, get, postJson, projectNamed, refusal } from '../support/api'

const demo = readFileSync('demo/footage/potter.mov')

/** A request with headers that fetch does not let one set. */
function raw(path: string, headers: Record<string, string>, method = 'GET'): Promise<{ status: number; body: string }> {
  const { hostname, port } = new URL(address())
  return new Promise((resolve, reject) => {
    const req = request({ hostname, port, path, method, headers }, (res) => {
      let body = ''
      res.on('data', (chunk: Buffer) => {
        body += chunk.toString()
      })
      res.on('end', () => resolve({ status: res.statusCode ?? 0, body }))
    })
    req.on('error', reject)
    req.end()
  })
}
const own = (): string => new URL(address()).host

describe('only its own page may drive the server', () => {
  test.each([
    ['another name', 'evil.example'],
    ['a name that resolves here', 'evil.example:4180'],
  ])('a request to Host %s is refused', async (_, host) => {
    expect((await raw('/api/projects', { host })).status).toBeGreaterThanOrEqual(400)
  })

  test.each(['http://evil.example', 'null', 'https://127.0.0.1', 'http://localhost:1'])(
    'a request from Origin %s is refused',
    async (origin) => {
      const { status, body } = await raw('/api/projects', { host: own(), origin })
      expect(status).toBe(403)
      expect(body).toContain('foreign_origin')
    },
  )

  test('a cross-site fetch without Origin is refused as well; its own is answered', async () => {
    expect(
      (await raw('/api/projects', { host: own(), 'sec-fetch-site': 'cross-site', 'sec-fetch-mode': 'no-cors' })).status,
    ).toBe(403)
    expect((await raw('/api/projects', { host: own(), 'sec-fetch-site': 'same-origin' })).status).toBe(200)
    expect((await raw('/', { host: own(), 'sec-fetch-site': 'cross-site', 'sec-fetch-mode': 'navigate' })).status).toBe(
      200,
    )
  })

  test('a link elsewhere leads to pages, and to nothing that pages ask for', async () => {
    const led = { host: own(), 'sec-fetch-site': 'cross-site', 'sec-fetch-mode': 'navigate' }
    for (const path of ['/', '/projects', '/luts/inspect']) expect((await raw(path, led)).status).toBe(200)
    for (const path of ['/api/projects', '/api/luts', '/api/health']) expect((await raw(path, led)).status).toBe(403)
  })

  test('a write from another page changes nothing', async () => {
    const before = await (await call('/projects')).text()
    await raw(
      '/api/projects',
      { host: own(), origin: 'http://evil.example', 'content-type': 'application/json' },
      'POST',
    )
    expect(await (await call('/projects')).text()).toBe(before)
  })
})

test('every answer carries a strict policy and isolation', async () => {
  for (const path of ['/', '/api/projects', '/api/nothing']) {
    const { headers } = await fetch(address() + path)
    expect(headers.get('content-security-policy')).toMatch(
      /default-src 'none'; script-src 'self' 'wasm-unsafe-eval'; style-src 'self'/,
    )
    expect(headers.get('content-security-policy')).not.toMatch(/unsafe-inline|'unsafe-eval'|\*/)
    expect(headers.get('cross-origin-opener-policy')).toBe('same-origin')
    expect(headers.get('cross-origin-embedder-policy')).toBe('require-corp')
    expect(headers.get('cross-origin-resource-policy')).toBe('same-origin')
    expect(headers.get('x-content-type-options')).toBe('nosniff')
  }
})

test('a body that does not say that it is JSON is not read as JSON', async () => {
  for (const type of ['text/plain', 'application/x-www-form-urlencoded', 'application/jsonp'])
    expect(
      await refusal(
        await call('/projects', { method: 'POST', headers: { 'content-type': type }, body: '{"name":"No"}' }),
      ),
    ).toMatchObject({ status: 415, code: 'not_json' })
})

test('no answer is kept by the browser that does not say how long', async () => {
  expect((await call('/projects')).headers.get('cache-control')).toBe('no-store')
  expect((await call('/nothing')).headers.get('cache-control')).toBe('no-store')
})

test.each(['/api/../../etc/passwd', '/..%2f..%2f..%2fetc/passwd', '/assets/..%2f..%2fnode%2fserver.js', '/%00'])(
  '%s gives no file',
  async (path) => {
    const { body } = await raw(path, { host: own() })
    expect(body).not.toContain('root:')
    expect(body).not.toContain('startServer')
  },
)

test('an address that is not there, and ids that are not ids, are told apart from errors', async () => {
  expect(await refusal(await call('/nothing'))).toMatchObject({ status: 404, code: 'not_found' })
  expect(await refusal(await call("/projects/1'%20OR%201=1/reel"))).toMatchObject({
    status: 404,
    message: 'There is no such project.',
  })
  expect((await call('/shots/00000000-0000-4000-8000-000000000000')).status).toBe(404)
})

test('a project needs a name that can be read', async () => {
  for (const name of ['', '   ', 'x'.repeat(81), 'a\nb', 7, null])
    expect((await postJson('/projects', { name })).status).toBe(422)
  expect((await postJson('/projects', { name: '<img src=x onerror=alert(1)>' })).status).toBe(201)
})

test('what is stored is the account\u2019s own', () => {
  const data = process.env['PALE_TEST_DATA']!
  for (const folder of ['media', 'luts', 'renders', 'thumbnails', 'proxies', 'uploads', 'incoming'])
    expect([folder, statSync(join(data, folder)).mode & 0o777]).toEqual([folder, 0o700])
})

test('one scene of a name in a project, though two tabs make it at once', async () => {
  const project = await projectNamed('Twice')
  const shotIn = async (): Promise<string> => {
    const made = await call(`/projects/${project}/shots?name=a.mov`, { method: 'POST', body: demo as BodyInit })
    return ((await made.json()) as { id: string }).id
  }
  const shots = [await shotIn(), await shotIn()]
  const answers = await Promise.all(
    shots.map((id) => postJson('/shots/changes', { shotIds: [id], scene: { name: 'Kiln' } })),
  )
  expect(answers.map((r) => r.status)).toEqual([204, 204])
  const { scenes } = await get<{ scenes: { name: string }[] }>(`/projects/${project}/reel`)
  expect(scenes.map((s) => s.name)).toEqual(['Kiln'])
})

test('no answer opens the program to other pages, that of the upload library included', async () => {
  const made = await call('/uploads', {
    method: 'POST',
    headers: { 'tus-resumable': '1.0.0', 'upload-length': '5', 'upload-metadata': 'filename YQ==' },
  })
  expect(made.status).toBe(201)
  expect(made.headers.get('location')).toMatch(/^\/api\/uploads\/[0-9a-f]{32}$/)
  expect(made.headers.get('tus-resumable')).toBe('1.0.0')
  expect([...made.headers.keys()].filter((name) => name.startsWith('access-control-'))).toEqual([])
})

test.each(['/%00', '/api/%00', '/api/projects/%00'])(
  '%s is an address that is not there, and no fault',
  async (path) => {
    const { status, body } = await raw(path, { host: own() })
    expect(status).toBe(404)
    expect(body).toContain('not_found')
  },
)
