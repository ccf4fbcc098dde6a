// What the headers of EXR and DPX pictures say of their colour, which the prober does not tell.
import { open } from 'node:fs/promises'
import { gamuts } from '@core/colour'

export interface PictureHeader {
  /** By the names of ISO/IEC 23091-2 where it has one, else by the gamut's id. */
  readonly primaries?: string
  readonly transfer?: string
  /** Shown as the file says it, by its own keys. */
  readonly said: readonly (readonly [string, string])[]
}

const headerBytes = 65_536

/** Null for files of other kinds, and for headers that end early. */
export async function readPictureHeader(path: string): Promise<PictureHeader | null> {
  const file = await open(path, 'r')
  try {
    const { buffer, bytesRead } = await file.read(Buffer.alloc(headerBytes), 0, headerBytes, 0)
    return pictureHeader(buffer.subarray(0, bytesRead))
  } finally {
    await file.close()
  }
}

export function pictureHeader(bytes: Buffer): PictureHeader | null {
  try {
    if (bytes.readUInt32LE(0) === 0x01312f76) return exrHeader(bytes)
    const magic = bytes.toString('latin1', 0, 4)
    return magic === 'SDPX' || magic === 'XPDS' ? dpxHeader(bytes) : null
  } catch (error) {
    // A header that ends early says nothing; whether the picture can be read is for the decoder to find.
    if ((error as Error).name === 'RangeError') return null
    throw error
  }
}

/** Transfer characteristics of an image element (SMPTE ST 268-1, table 5A). */
const dpxTransfers: Readonly<Record<number, string>> = {
  1: 'printing density',
  2: 'linear',
  3: 'logarithmic',
  4: 'unspecified video',
  5: 'smpte274m',
  6: 'bt709',
  7: 'bt601',
  8: 'bt601',
}
const dpxTransferAt = 801

/**
 * Only printing density is a tag to go by: "linear" stands in most whole-number files whatever they hold, and video
 * codes are put on logs too.
 */
function dpxHeader(bytes: Buffer): PictureHeader {
  const said = dpxTransfers[bytes.readUInt8(dpxTransferAt)]
  if (said === undefined) return { said: [] }
  return { said: [['transfer', said]], ...(said === 'printing density' ? { transfer: said } : {}) }
}

/** Attributes that say something of colour (OpenEXR file layout: standard attributes). */
const exrNumbers = new Set(['whiteLuminance', 'acesImageContainerFlag', 'expTime', 'aperture', 'isoSpeed'])
const mostAttributes = 256

function exrHeader(bytes: Buffer): PictureHeader {
  const said: (readonly [string, string])[] = []
  let primaries: string | undefined
  let at = 8
  const text = (): string => {
    const end = bytes.indexOf(0, at)
    if (end < 0) throw new RangeError('The header ends early.')
    const word = bytes.toString('latin1', at, end)
    at = end + 1
    return word
  }
  for (let n = 0; n < mostAttributes; n++) {
    const name = text()
    if (name === '') break
    const type = text()
    const size = bytes.readInt32LE(at)
    if (size < 0) throw new RangeError('A size is negative.')
    at += 4
    if (name === 'chromaticities' && type === 'chromaticities') {
      const places = Array.from({ length: 8 }, (_, i) => bytes.readFloatLE(at + i * 4))
      said.push([name, places.map((v) => v.toFixed(4)).join(' ')])
      primaries = gamutAt(places)
    } else if (exrNumbers.has(name)) {
      const value = type === 'float' ? bytes.readFloatLE(at) : bytes.readInt32LE(at)
      said.push([name, String(Number(value.toPrecision(6)))])
    }
    at += size
  }
  return { said, ...(primaries === undefined ? {} : { primaries }) }
}

const namesOfGamuts: Readonly<Record<string, string>> = { 'p3-d65': 'smpte432', 'p3-dci': 'smpte431' }
const sameWithin = 0.002

/** The gamut with these primaries and this white: x and y of red, green, blue and white. */
function gamutAt(places: readonly number[]): string | undefined {
  const found = gamuts.find(({ red, green, blue, white }) =>
    [red, green, blue, white]
      .flatMap(({ x, y }) => [x, y])
      .every((v, i) => Math.abs(v - (places[i] ?? NaN)) <= sameWithin),
  )
  return found && (namesOfGamuts[found.id] ?? found.id)
}
