// Other accounts of the same machine reach the loopback address too. The kernel says whose socket the other end is
// (proc(5), net/tcp), so that only the server's own account is answered.
import { readFile } from 'node:fs/promises'
import type { Socket } from 'node:net'

/** The accounts that may ask: the server's own, and whoever called it through sudo. */
export function ownAccounts(env: NodeJS.ProcessEnv): ReadonlySet<number> {
  const caller = Number(env['SUDO_UID'] ?? NaN)
  return new Set([process.getuid?.() ?? -1, ...(Number.isInteger(caller) ? [caller] : [])])
}

/** An address and port as the table has them: four bytes in the machine's order (little-endian), in hexadecimal. */
function tableAddress(address: string, port: number): string {
  const bytes = address.split('.').map(Number).reverse()
  const hex = (n: number, digits: number): string => n.toString(16).toUpperCase().padStart(digits, '0')
  return `${bytes.map((b) => hex(b, 2)).join('')}:${hex(port, 4)}`
}

/** The account whose socket is connected from `local` to `remote`; undefined when there is none. */
export function accountIn(table: string, local: string, remote: string): number | undefined {
  for (const line of table.split('\n')) {
    const [, from, to, , , , , uid, , inode] = line.trim().split(/\s+/)
    // A socket that its owner has closed belongs to nobody: it has no inode.
    if (from === local && to === remote && inode !== '0') return Number(uid)
  }
  return undefined
}

const loopback = /^(?:::ffff:)?(127\.\d+\.\d+\.\d+)$/

/** Where in the table a socket's other end stands; undefined for connections from elsewhere than IPv4's loopback. */
function placeInTable(socket: Socket): readonly [local: string, remote: string] | undefined {
  const from = loopback.exec(socket.remoteAddress ?? '')?.[1]
  const to = loopback.exec(socket.localAddress ?? '')?.[1]
  if (from === undefined || to === undefined) return undefined
  return [tableAddress(from, socket.remotePort ?? 0), tableAddress(to, socket.localPort ?? 0)]
}

const systemTable = (): Promise<string | undefined> => readFile('/proc/net/tcp', 'utf8').catch(() => undefined)

/**
 * Says of each connection whether its other end belongs to one of the accounts. Connections from elsewhere than this
 * machine's IPv4 loopback come only where the address was opened to them on purpose, and are not for this to judge.
 * The table is long and slow to read: it is read once for all connections that came while it was read last, and never
 * before the connection that it is asked about was there.
 */
export function peerCheck(
  accounts: ReadonlySet<number>,
  readTable = systemTable,
): (socket: Socket) => Promise<boolean> {
  let reading: Promise<string | undefined> | null = null
  let next: Promise<string | undefined> | null = null
  const read = (): Promise<string | undefined> => {
    const begun = readTable().finally(() => {
      if (reading === begun) reading = null
    })
    reading = begun
    return begun
  }
  /** A table whose reading has not begun yet. */
  const freshTable = (): Promise<string | undefined> => {
    if (!reading) return read()
    next ??= reading.then(() => {
      next = null
      return read()
    })
    return next
  }
  return async (socket) => {
    const place = placeInTable(socket)
    if (!place) return true
    const table = await freshTable()
    // No such table on this system: nothing can be said.
    if (table === undefined) return true
    const account = accountIn(table, ...place)
    return account !== undefined && accounts.has(account)
  }
}
