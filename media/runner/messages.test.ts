import { PassThrough } from 'node:stream'
import { receive, send, type RunnerAnswer } from './messages'

test('messages come whole and in order, however they are cut on the way', async () => {
  const sent: readonly (readonly [RunnerAnswer, Buffer])[] = [
    [{ run: 1, output: 0 }, Buffer.from(Uint8Array.from({ length: 100_000 }, (_, n) => n % 251))],
    [{ run: 1, code: 0, stderr: 'a word – not in ASCII', stoppedBy: null }, Buffer.alloc(0)],
    [{ run: 2, output: 3 }, Buffer.from([7])],
  ]
  const wire = new PassThrough()
  for (const [head, bytes] of sent) send(wire, head, bytes)
  wire.end()
  const all = Buffer.concat(await wire.toArray())
  for (const step of [1, 7, 4096, 65_536, all.length]) {
    const cut = new PassThrough()
    const got: (readonly [RunnerAnswer, Buffer])[] = []
    receive<RunnerAnswer>(cut, (head, bytes) => got.push([head, bytes]))
    for (let at = 0; at < all.length; at += step) cut.write(all.subarray(at, at + step))
    cut.end()
    await new Promise((ended) => cut.once('end', ended))
    expect(got.map(([head]) => head)).toEqual(sent.map(([head]) => head))
    expect(got.every(([, bytes], n) => bytes.equals(sent[n]![1]))).toBe(true)
    // Each a buffer of its own, which may be handed to a thread.
    for (const [, bytes] of got) expect(bytes.byteOffset === 0 && bytes.buffer.byteLength === bytes.length).toBe(true)
  }
})
