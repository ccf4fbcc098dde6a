// Keeps other pages and other machines out: Host and Origin must be our own; answers carry a strict content policy.
import type { MiddlewareHandler } from 'hono'
import { secureHeaders } from 'hono/secure-headers'
import { notFound, Problem } from '../problem'

const loopbackNames = ['127.0.0.1', 'localhost', '[::1]']

/** The Host values this server answers to. A host set on purpose is allowed beside the loopback names. */
export function ownHosts(host: string, port: number): ReadonlySet<string> {
  return new Set([...loopbackNames, host].map((name) => `${name}:${port}`))
}

/** Refuses requests addressed to another Host or sent by a page of another Origin. */
export function sameSiteOnly(hosts: ReadonlySet<string>): MiddlewareHandler {
  return async (c, next) => {
    const host = c.req.header('host') ?? ''
    if (/%00|\0/.test(c.req.path)) throw notFound('address')
    if (!hosts.has(host)) throw new Problem(421, 'foreign_host', 'This server answers only to its own address.')
    const origin = c.req.header('origin')
    if (origin !== undefined && origin !== `http://${host}`)
      throw new Problem(403, 'foreign_origin', 'Requests from other pages are refused.')
    const site = c.req.header('sec-fetch-site')
    // A link elsewhere may lead to a page of ours, and to nothing that a page asks for.
    const toPage =
      c.req.method === 'GET' && c.req.header('sec-fetch-mode') === 'navigate' && !c.req.path.startsWith('/api/')
    if (site !== undefined && site !== 'same-origin' && site !== 'none' && !toPage)
      throw new Problem(403, 'foreign_origin', 'Requests from other pages are refused.')
    await next()
  }
}

/** Content security policy, cross-origin isolation (shared memory in workers) and the usual protective headers. */
export const protectiveHeaders = (): MiddlewareHandler =>
  secureHeaders({
    contentSecurityPolicy: {
      defaultSrc: ["'none'"],
      // The lattice kernel is WebAssembly, shipped inside the script; nothing else may be compiled.
      scriptSrc: ["'self'", "'wasm-unsafe-eval'"],
      styleSrc: ["'self'"],
      imgSrc: ["'self'", 'blob:', 'data:'],
      fontSrc: ["'self'"],
      connectSrc: ["'self'"],
      workerSrc: ["'self'"],
      manifestSrc: ["'self'"],
      baseUri: ["'none'"],
      formAction: ["'none'"],
      frameAncestors: ["'none'"],
    },
    crossOriginEmbedderPolicy: 'require-corp',
    crossOriginOpenerPolicy: 'same-origin',
    crossOriginResourcePolicy: 'same-origin',
    referrerPolicy: 'no-referrer',
    strictTransportSecurity: false,
    xFrameOptions: 'DENY',
  })
