import { decoderLog } from './decoder-log'

const said = [
  "[info] Input #0, mpegts, from 'both.ts':\n",
  '[graph 0 input from stream 0:0 @ 0x55fcc7fc6a80] [verbose] w:320 h:180 pixfmt:yuv420p tb:1/90000 fr:24/1 sar:1/1\n',
  '[h264 @ 0x55fcc7f8b380] [verbose] Reinit context to 160x96, pix_fmt: yuv420p\n',
  '[h264 @ 0x1] [error] error while decoding MB 3 4\n[warning] both.ts: corrupt input packet in stream 0\r',
  '[graph 0 input from stream 0:0 @ 0x55fcc7f93400] [verbose] w:160 h:90 pixfmt:yuv420p tb:1/90000 fr:24/1 sar:1/1\n',
  '[scaler_out_0_0 @ 0x55fcc7f87ac0] [verbose] w:320 h:180 flags:"" interl:0\n',
].join('')

test.each([1, 7, 100, 10_000])('in pieces of %i characters: faults, and each new size once', (length) => {
  const log = decoderLog()
  for (let at = 0; at < said.length; at += length) log.take(said.slice(at, at + length))
  expect(log.faults()).toEqual(['[h264 @ 0x1] [error] error while decoding MB 3 4'])
  expect(log.sizes()).toEqual(['320×180', '160×90'])
})

test('endless lines and endless faults take no memory', () => {
  const log = decoderLog()
  for (let n = 0; n < 1000; n++) log.take(`${'x'.repeat(100_000)}`)
  log.take('\n')
  for (let n = 0; n < 1000; n++) log.take('[error] again\n')
  expect(log.faults()).toHaveLength(20)
})
