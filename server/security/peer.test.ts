import { readFileSync } from 'node:fs'
import { createServer, connect, type AddressInfo, type Socket } from 'node:net'
import { once } from 'node:events'
import { accountIn, ownAccounts, peerCheck } from './peer'

const table = `  sl  local_address rem_address   st tx_queue rx_queue tr tm->when retrnsmt   uid  timeout inode
   0: 0100007F:1054 00000000:0000 0A 00000000:00000000 00:00000000 00000000  1000        0 4711 1 0000 100 0 0 10 0
   1: 0100007F:9C40 0100007F:1054 01 00000000:00000000 00:00000000 00000000  1001        0 4712 1 0000 20 4 30 10 -1
   2: 0100007F:9C41 0100007F:1054 04 00000000:00000000 00:00000000 00000000     0        0 0 1 0000 20 4 30 10 -1
`

test('the account of the other end is read from the table; what its owner closed belongs to nobody', () => {
  expect(accountIn(table, '0100007F:9C40', '0100007F:1054')).toBe(1001)
  expect(accountIn(table, '0100007F:9C41', '0100007F:1054')).toBeUndefined()
  expect(accountIn(table, '0100007F:9C42', '0100007F:1054')).toBeUndefined()
  expect(accountIn('', '0100007F:9C40', '0100007F:1054')).toBeUndefined()
})

test('whoever called through sudo may ask too', () => {
  const own = process.getuid!()
  expect([...ownAccounts({ SUDO_UID: '1234' })]).toEqual([own, 1234])
  expect([...ownAccounts({ SUDO_UID: 'root' })]).toEqual([own])
  expect([...ownAccounts({})]).toEqual([own])
})

/** A server with so many connections to it. */
async function connected(count: number): Promise<{ sockets: readonly Socket[]; close: () => void }> {
  const server = createServer()
  server.listen(0, '127.0.0.1')
  await once(server, 'listening')
  const clients: Socket[] = []
  const sockets: Socket[] = []
  for (let n = 0; n < count; n++) {
    const came = once(server, 'connection') as Promise<[Socket]>
    clients.push(connect((server.address() as AddressInfo).port, '127.0.0.1'))
    sockets.push(...(await came))
  }
  return {
    sockets,
    close: () => {
      for (const socket of [...clients, ...sockets]) socket.destroy()
      server.close()
    },
  }
}

test.each([
  ['of the own account', [process.getuid!()], true],
  ['of another account', [987_654], false],
])('a real connection %s', async (_, accounts, own) => {
  const { sockets, close } = await connected(1)
  expect(await peerCheck(new Set(accounts))(sockets[0]!)).toBe(own)
  close()
})

test('many connections share few readings, each begun after they were there', async () => {
  const { sockets, close } = await connected(20)
  let readings = 0
  const check = peerCheck(new Set([process.getuid!()]), async () => {
    readings++
    await new Promise((done) => setTimeout(done, 5))
    return readFileSync('/proc/net/tcp', 'utf8')
  })
  const answers = sockets.map(check)
  expect(await Promise.all(answers)).toEqual(sockets.map(() => true))
  // The first began one; the others came while it ran, and wait for the next.
  expect(readings).toBe(2)
  expect(await check(sockets[0]!)).toBe(true)
  expect(readings).toBe(3)
  close()
})
