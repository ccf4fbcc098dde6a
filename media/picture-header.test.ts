import { pictureHeader } from './picture-header'

const text = (word: string): Buffer => Buffer.from(`${word}\0`, 'latin1')
const int = (value: number): Buffer => {
  const bytes = Buffer.alloc(4)
  bytes.writeInt32LE(value)
  return bytes
}
const floats = (values: readonly number[]): Buffer => Buffer.from(Float32Array.from(values).buffer)
const attribute = (name: string, type: string, value: Buffer): Buffer =>
  Buffer.concat([text(name), text(type), int(value.length), value])
const exr = (...attributes: readonly Buffer[]): Buffer =>
  Buffer.concat([Buffer.from([0x76, 0x2f, 0x31, 0x01, 2, 0, 0, 0]), ...attributes, Buffer.from([0])])

const wide = [0.713, 0.293, 0.165, 0.83, 0.128, 0.044, 0.32168, 0.33767]
const cinema = [0.68, 0.32, 0.265, 0.69, 0.15, 0.06, 0.3127, 0.329]
const nobodys = [0.6, 0.3, 0.2, 0.7, 0.1, 0.1, 0.3127, 0.329]

test.each([
  ['AP1', wide, 'ap1'],
  ['P3 with daylight white', cinema, 'smpte432'],
  ['primaries that are no known gamut', nobodys, undefined],
])('an EXR says its primaries: %s', (_, places, primaries) => {
  const header = pictureHeader(
    exr(
      attribute('compression', 'compression', Buffer.from([3])),
      attribute('chromaticities', 'chromaticities', floats(places)),
      attribute('whiteLuminance', 'float', floats([100])),
    ),
  )
  expect(header?.primaries).toBe(primaries)
  expect(header?.said.map(([key]) => key)).toEqual(['chromaticities', 'whiteLuminance'])
  expect(header?.said[1]).toEqual(['whiteLuminance', '100'])
})

test.each([
  [1, 'printing density', 'printing density'],
  [2, undefined, 'linear'],
  [6, undefined, 'bt709'],
])('a DPX with transfer %p goes by %p and shows %p', (code, transfer, shown) => {
  const bytes = Buffer.alloc(2048)
  bytes.write('SDPX', 0, 'latin1')
  bytes[801] = code
  expect(pictureHeader(bytes)).toEqual({ said: [['transfer', shown]], ...(transfer ? { transfer } : {}) })
})

test('a header that ends early, lies about a size or never ends says nothing', () => {
  const whole = exr(attribute('chromaticities', 'chromaticities', floats(wide)))
  for (let length = 0; length < whole.length - 1; length++) expect(pictureHeader(whole.subarray(0, length))).toBeNull()
  expect(pictureHeader(exr(Buffer.concat([text('a'), text('int'), int(-1)])))).toBeNull()
  expect(pictureHeader(exr(Buffer.concat([text('a'), text('int'), int(0x7fffffff)])))).toBeNull()
  const endless = exr(...Array.from({ length: 300 }, (_, n) => attribute(`a${n}`, 'int', int(n))))
  expect(pictureHeader(endless)).toEqual({ said: [] })
  expect(pictureHeader(Buffer.from('not a picture of these kinds'))).toBeNull()
})
