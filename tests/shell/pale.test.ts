// Long: every command of the shell has its cases, on the same files.
// bin/pale as a person uses it from a shell: the built program, real files, exit codes and what is printed.
import { execFile, execFileSync } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { decode as decodePng, encode as encodePng } from 'fast-png'
import { bakeLut } from '@core/bake'
import { displayById, encodingById, encodings, gamutById, gamutToGamut, transform } from '@core/colour'
import { parseCube } from '@core/formats'
import { addRegion, defaultGrade, keyComponent, setParameter, setShow, type GradeDocument } from '@core/grade'
import { freshKey, noCleaning } from '@core/regions'

const program = join(process.cwd(), 'dist/node/pale.js')
let folder = ''
beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), 'pale-shell-'))
})
afterAll(() => rmSync(folder, { recursive: true, force: true }))
const at = (name: string): string => join(folder, name)

interface Ran {
  readonly code: number
  readonly out: string
  readonly err: string
}
function pale(...args: string[]): Promise<Ran> {
  return new Promise((done) => {
    execFile(process.execPath, [program, ...args], { maxBuffer: 64 * 1024 * 1024 }, (error, out, err) =>
      done({ code: error ? Number((error as { code?: number }).code ?? 1) : 0, out, err }),
    )
  })
}

/** A neutral ramp through all 16-bit codes in steps of 16, as a PNG. */
function ramp(): string {
  const width = 4096
  const data = new Uint16Array(width * 3)
  for (let x = 0; x < width; x++) data.fill(Math.min(65535, x * 16), x * 3, x * 3 + 3)
  writeFileSync(at('ramp.png'), encodePng({ width, height: 1, data, depth: 16, channels: 3 }))
  return at('ramp.png')
}

const display = displayById('bt709-2.4')

describe('convert', () => {
  test.each(encodings.map((e) => e.id))(
    'a 16-bit ramp through %s → BT.709 2.4 straight is the analytic result to 1e-4 in linear light',
    async (id) => {
      const { code } = await pale('convert', ramp(), at(`${id}.png`), '--encoding', id, '--display', 'bt709-2.4')
      expect(code).toBe(0)
      const out = decodePng(readFileSync(at(`${id}.png`)))
      const encoding = encodingById(id)
      const matrix = gamutToGamut(gamutById(encoding.gamutIds[0]), gamutById(display.gamutId))
      let worst = 0
      for (let x = 0; x < out.width; x++) {
        const light = encoding.curve.decode(Math.min(65535, x * 16) / 65535)
        transform(matrix, [light, light, light]).forEach((v, c) => {
          const got = display.eotf.decode(Number(out.data[x * 3 + c]) / 65535)
          worst = Math.max(worst, Math.abs(got - Math.min(Math.max(v, 0), 1)))
        })
      }
      expect(worst).toBeLessThan(1e-4)
    },
  )

  test('legal range, colour and light far outside give finite signal through floating point files', async () => {
    const { code, err } = await pale(
      'convert',
      ramp(),
      at('legal.exr'),
      '--encoding',
      'log-420-95',
      '--range',
      'legal',
      '--display',
      'pq-1000',
      '--show',
      'rolloff',
      '--exposure',
      '-1.5',
    )
    expect([code, err]).toEqual([0, ''])
    const back = await pale(
      'convert',
      at('legal.exr'),
      at('back.png'),
      '--encoding',
      'linear',
      '--gamut',
      'bt2020',
      '--display',
      'srgb',
    )
    expect(back.code).toBe(0)
    const out = decodePng(readFileSync(at('back.png')))
    expect([...out.data].every(Number.isFinite)).toBe(true)
    expect(out.data[0]).toBe(0)
  })

  test('TIFF goes in and out, and --lattice says how far it is from the exact path', async () => {
    expect(
      (await pale('convert', ramp(), at('a.tif'), '--encoding', 'log-400-95-a', '--display', 'bt709-2.4')).code,
    ).toBe(0)
    const exact = await pale(
      'convert',
      at('a.tif'),
      at('same.tif'),
      '--encoding',
      'gamma-2.4',
      '--gamut',
      'bt709',
      '--display',
      'bt709-2.4',
    )
    expect(exact.code).toBe(0)
    const coarse = await pale(
      'convert',
      ramp(),
      at('coarse.png'),
      '--encoding',
      'log-400-95-a',
      '--display',
      'bt709-2.4',
      '--lattice',
      '9',
      '--json',
    )
    const { error } = JSON.parse(coarse.out) as { error: { mean: number; worst: number } }
    expect(error.worst).toBeGreaterThan(0.3)
    const fine = JSON.parse(
      (
        await pale(
          'convert',
          ramp(),
          at('fine.png'),
          '--encoding',
          'log-400-95-a',
          '--display',
          'bt709-2.4',
          '--lattice',
          '65',
          '--json',
        )
      ).out,
    ) as { error: { worst: number } }
    expect(fine.error.worst).toBeLessThan(error.worst)
  })

  test('a clip becomes a clip with the tags of its display', async () => {
    execFileSync('ffmpeg', [
      '-v',
      'error',
      '-f',
      'lavfi',
      '-i',
      'testsrc2=s=96x64:r=24:d=0.25',
      '-pix_fmt',
      'yuv422p10le',
      '-c:v',
      'ffv1',
      at('clip.mkv'),
    ])
    const { code, out } = await pale(
      'convert',
      at('clip.mkv'),
      at('clip.mp4'),
      '--encoding',
      'bt709-camera',
      '--display',
      'hlg',
    )
    expect([code, out]).toEqual([0, expect.stringMatching(/6 frames/)])
    const tags = execFileSync(
      'ffprobe',
      [
        '-v',
        'error',
        '-show_entries',
        'stream=color_transfer,color_primaries,color_space,pix_fmt,nb_frames',
        '-of',
        'csv=p=0',
        at('clip.mp4'),
      ],
      { encoding: 'utf8' },
    )
    expect(tags).toMatch(/yuv420p10le.*bt2020nc.*arib-std-b67.*bt2020.*6/)
  })

  test('a grade’s exposure and show are used, and the shell overrides them', async () => {
    const grade = setShow(setParameter(defaultGrade('log-420-95'), 'exposure', 'exposureStops', 1), {
      method: 'rolloff',
    })
    writeFileSync(at('grade.json'), JSON.stringify(grade))
    const read = (name: string): number => Number(decodePng(readFileSync(at(name))).data[3 * 1700])
    await pale('convert', ramp(), at('g1.png'), '--grade', at('grade.json'))
    await pale('convert', ramp(), at('g0.png'), '--grade', at('grade.json'), '--exposure', '0')
    const light = (v: number): number => display.eotf.decode(v / 65535)
    expect(light(read('g1.png')) / light(read('g0.png'))).toBeCloseTo(2, 2)
  })

  test('a region with a key acts where the key holds, and nowhere else', async () => {
    const { grade, regionId } = addRegion(defaultGrade('log-420-95'))
    const darks = { hue: null, chroma: null, lightness: { low: -0.2, high: 0.45, softLow: 0, softHigh: 0.01 } }
    const keyed = {
      ...grade,
      regions: grade.regions.map((r) => ({
        ...r,
        components: [keyComponent('component-1')].map((p) => ({
          ...p,
          source: { kind: 'key' as const, key: { ...freshKey, groups: [darks] }, cleaning: noCleaning },
        })),
      })),
    }
    writeFileSync(at('keyed.json'), JSON.stringify(setParameter(keyed, `${regionId}-exposure`, 'exposureStops', 1)))
    await pale('convert', ramp(), at('keyed.png'), '--grade', at('keyed.json'))
    writeFileSync(at('plain.json'), JSON.stringify(defaultGrade('log-420-95')))
    await pale('convert', ramp(), at('plain.png'), '--grade', at('plain.json'))
    const [keyedOut, plain] = ['keyed.png', 'plain.png'].map(
      (name) => decodePng(readFileSync(at(name))).data as Uint16Array,
    )
    const code = encodingById('log-420-95').curve.encode
    const pixel = (light: number): number => Math.round(code(light) * 4096) * 3 + 1
    // Lightness 0.45 is about 0.09 of light.
    expect(
      display.eotf.decode(keyedOut![pixel(0.06)]! / 65535) / display.eotf.decode(plain![pixel(0.06)]! / 65535),
    ).toBeCloseTo(2, 1)
    expect(keyedOut![pixel(0.2)]).toBe(plain![pixel(0.2)])
  })
})

describe('bake, lookup, fit, encodings', () => {
  test('bake writes the grade as a .cube that reads back', async () => {
    const grade: GradeDocument = setParameter(defaultGrade('log-351-128'), 'contrast', 'contrast', 1.2)
    writeFileSync(at('bake.json'), JSON.stringify(grade))
    const { code, out } = await pale('bake', '--grade', at('bake.json'), '--size', '17', at('bake.cube'))
    expect([code, out]).toEqual([0, expect.stringMatching(/17×17×17. Everything in the grade is carried/)])
    const back = parseCube(readFileSync(at('bake.cube'), 'utf8'))
    const own = bakeLut(grade, () => undefined, 17, '')
    if (back.dimensions !== 3) throw new Error('A cube was expected.')
    back.data.forEach((v, i) => expect(Math.abs(v - own.data[i]!)).toBeLessThan(1e-6))
  })

  test('inspect says what LUTs are, and which lines it left out', async () => {
    writeFileSync(at('plain.cube'), `lut_1d_size 2\nLUT_IN_VIDEO_RANGE\n0 0 0\n0.5 0.5 0.5\n`)
    await pale('bake', '--grade', at('bake.json'), '--size', '33', at('conversion.cube'))
    const { code, out } = await pale('inspect', at('plain.cube'), at('conversion.cube'), '--json')
    expect(code).toBe(0)
    expect(JSON.parse(out)).toMatchObject([
      {
        format: 'cube',
        dimensions: 1,
        notes: ['Line 2: "LUT_IN_VIDEO_RANGE" is not known in this format; it is left out of account.'],
        inspection: { expects: { kind: 'look' }, range: { low: 0, high: 0.5 } },
      },
      { dimensions: 3, notes: [], inspection: { expects: { kind: 'conversion' } } },
    ])
    expect((await pale('inspect', at('plain.cube'))).out).toMatch(/plain\.cube: look.*\n[^]*▲ Line 2/)
    expect(await pale('inspect', at('bake.json'))).toMatchObject({ code: 2, err: expect.stringContaining('bake.json') })
  })

  test('lookup names the encoding of a data sheet', async () => {
    const { out } = await pale('lookup', '--grey', '41.1%', '--black', '95/1023', '--json')
    expect((JSON.parse(out) as { matches: { id: string }[] }).matches[0]!.id).toBe('log-420-95')
    expect((await pale('lookup', '--grey', '41.1%', '--black', '95/1023')).out).toMatch(
      /^ +0\.\d+ codes {2}Log 420\/95/,
    )
  })

  test('fit prints the seven numbers and the residual of each patch', async () => {
    const { encode } = encodingById('log-407-95').curve
    const lines = [-4, -3, -2, -1, 0, 1, 2, 3].map((stops) => {
      const light = 0.18 * 2 ** stops
      return `${(encode(light) * 1023).toFixed(2)},${light}`
    })
    writeFileSync(at('table.csv'), `code,light\n${lines.join('\n')}\n`)
    const { code, out } = await pale('fit', at('table.csv'))
    expect(code).toBe(0)
    expect(out).toMatch(/a 0\.24/)
    expect(out).toMatch(/patch {2}8/)
    expect(out).toMatch(/Nearest known: Log 407\/95/)
  })

  test('encodings lists every one with its codes, as text and as JSON', async () => {
    const listed = JSON.parse((await pale('encodings', '--json')).out) as { id: string; greyCode: number }[]
    expect(listed.map((e) => e.id)).toEqual(encodings.map((e) => e.id))
    expect(listed.find((e) => e.id === 'log-420-95')!.greyCode).toBe(420)
    expect((await pale('encodings')).out.split('\n').filter(Boolean)).toHaveLength(encodings.length)
  })
})

describe('bad use ends with 2 and one clear line', () => {
  const zeroSize = (): string => {
    const png = Buffer.from(encodePng({ width: 1, height: 1, data: new Uint8Array(3), depth: 8, channels: 3 }))
    png.writeUInt32BE(0, 16)
    writeFileSync(at('zero.png'), png)
    return at('zero.png')
  }
  const huge = (): string => {
    const png = Buffer.from(encodePng({ width: 1, height: 1, data: new Uint8Array(3), depth: 8, channels: 3 }))
    png.writeUInt32BE(16384, 16)
    png.writeUInt32BE(16384, 20)
    writeFileSync(at('huge.png'), png)
    return at('huge.png')
  }
  const text = (): string => {
    writeFileSync(at('text.png'), 'not a picture')
    return at('text.png')
  }
  const cut = (): string => {
    writeFileSync(at('cut.png'), readFileSync(ramp()).subarray(0, 300))
    return at('cut.png')
  }
  const ok = ['--encoding', 'log-420-95', '--display', 'bt709-2.4']
  test.each<[string, () => string[], RegExp]>([
    ['an unknown command', () => ['grade'], /no command "grade"/],
    ['an unknown option', () => ['lookup', '--gray', '1'], /--gray/],
    [
      'an unknown encoding',
      () => ['convert', ramp(), at('x.png'), '--encoding', 'log-1-2', '--display', 'srgb'],
      /no encoding "log-1-2"/,
    ],
    [
      'an unknown display',
      () => ['convert', ramp(), at('x.png'), '--encoding', 'srgb', '--display', 'wall'],
      /no display "wall"/,
    ],
    [
      'an exposure of words',
      () => ['convert', ramp(), at('x.png'), ...ok, '--exposure', 'much'],
      /--exposure must be a number/,
    ],
    ['an absurd lattice', () => ['convert', ramp(), at('x.png'), ...ok, '--lattice', '4096'], /from 2 to 129/],
    ['nothing to write', () => ['convert', ramp()], /Name what to read/],
    ['a strange ending', () => ['convert', ramp(), at('x.bmp'), ...ok], /must end in/],
    ['no file', () => ['convert', at('none.png'), at('x.png'), ...ok], /There is no file/],
    ['a picture without pixels', () => ['convert', zeroSize(), at('x.png'), ...ok], /no pixels/],
    ['a picture of 16k', () => ['convert', huge(), at('x.png'), ...ok], /16384×16384; pictures of up to 8192/],
    ['text called PNG', () => ['convert', text(), at('x.png'), ...ok], /not a picture that can be read|damaged/],
    ['a PNG cut short', () => ['convert', cut(), at('x.png'), ...ok], /damaged/],
    ['a level of words', () => ['lookup', '--grey', 'middling'], /is no level/],
    ['no table', () => ['fit'], /Name a table/],
    [
      'a table that falls',
      () => {
        writeFileSync(at('fall.csv'), '0.9,0\n0.5,0.1\n0.3,0.2\n0.1,0.3\n')
        return ['fit', at('fall.csv')]
      },
      /falls/,
    ],
    [
      'a grade that is none',
      () => {
        writeFileSync(at('bad.json'), '{"schema":9}')
        return ['bake', '--grade', at('bad.json'), at('x.cube')]
      },
      /is no grade/,
    ],
    [
      'a shaper before a Hald picture',
      () => {
        writeFileSync(at('plain.json'), JSON.stringify(defaultGrade('log-351-128')))
        return ['bake', '--grade', at('plain.json'), '--format', 'hald', '--shaper', at('x.png')]
      },
      /no place for a curve/,
    ],
    [
      'a LUT without the grade that refers to it',
      () => [
        'convert',
        ramp(),
        at('x.png'),
        '--encoding',
        'gamma-2.4',
        '--display',
        'bt709-2.4',
        '--lut',
        at('x.cube'),
      ],
      /name it with --grade/,
    ],
    ['a patch outside', () => ['guess', ramp(), '--patch', '0,0,9999,9999=0.18'], /24×24|does not lie/],
    ['a picture too small to guess', () => ['guess', ramp()], /24×24/],
  ])('%s', async (_, args, reason) => {
    const { code, out, err } = await pale(...args())
    expect(code).toBe(2)
    expect(out).toBe('')
    expect(err.trim().split('\n')).toHaveLength(1)
    expect(err).toMatch(reason)
  })

  test('--help documents every command', async () => {
    const overview = (await pale('--help')).out
    for (const name of ['encodings', 'lookup', 'fit', 'guess', 'measure', 'balance', 'convert', 'bake', 'inspect']) {
      expect(overview).toContain(`pale ${name}`)
      expect((await pale(name, '--help')).out).toContain(`pale ${name}`)
    }
  })
})

describe('guess', () => {
  interface Told {
    readonly kind: string
    readonly tagged: { encodingId: string } | null
    readonly range: { likely: string; conflict: boolean }
    readonly groups: readonly { members: readonly { id: string; range: string }[] }[]
    readonly sentences: readonly string[]
  }
  const guess = async (...args: string[]): Promise<Told> =>
    JSON.parse((await pale('guess', ...args, '--json')).out) as Told
  const clip = (name: string): string => join('demo', 'footage', `${name}.mov`)

  test('a clip is told by several of its places, and that compression has changed its noise is said', async () => {
    const told = await guess(clip('glaze-shelf'))
    expect([told.kind, told.range.conflict]).toEqual(['camera log', false])
    expect(told.sentences.join(' ')).toContain('Compression has changed the noise of this clip')
  })

  test('a wrong range flag is found', async () => {
    const told = await guess(clip('glaze-shelf'), '--range', 'legal')
    expect(told.range).toMatchObject({ likely: 'full', conflict: true })
    expect(told.sentences.join(' ')).toContain('The file says legal range, but its codes look like full range')
  })

  test('one chosen frame is enough to tell a log', async () => {
    expect((await guess(clip('glaze-shelf'), '--frame', '119')).kind).toBe('camera log')
    const { code, err } = await pale('guess', clip('glaze-shelf'), '--frame', '120')
    expect([code, err]).toEqual([2, expect.stringMatching(/--frame/)])
  })

  test('what the file says of itself comes first', async () => {
    const told = await guess(clip('market-phone'))
    expect([told.kind, told.tagged]).toEqual(['HLG', { encodingId: 'hlg' }])
    expect(told.sentences[0]).toBe('The file itself says hlg.')
  })
})

describe('measure', () => {
  const middle = (x: number): number => 0.2 + (0.6 * x) / 399
  /**
   * A picture whose levels are known: greys of 20 to 80 %, with a strip of `low` at the left and of `high` at the
   * right, as 16-bit PNG.
   */
  function greys(name: string, low: number, high: number): string {
    const width = 400
    const height = 60
    const data = new Uint16Array(width * height * 3)
    const tone = (x: number): number => {
      if (x < 2) return low
      return x >= width - 2 ? high : middle(x)
    }
    for (let p = 0; p < width * height; p++) data.fill(Math.round(tone(p % width) * 65535), p * 3, p * 3 + 3)
    writeFileSync(at(name), encodePng({ width, height, data, depth: 16, channels: 3 }))
    return at(name)
  }
  interface Measured {
    standard: string
    within: boolean
    frames: number[]
    readings: { id: string; value: number; outside: boolean; verdict: string | null; frame: number; sentence: string }[]
  }
  const value = (m: Measured, id: string): number => m.readings.find((r) => r.id === id)!.value

  test('says where it lies, and its exit code says whether that is within the standard', async () => {
    const good = await pale('measure', greys('good.png', 0.03, 0.95), '--json')
    expect([good.code, good.err]).toEqual([0, ''])
    const readings = JSON.parse(good.out) as Measured
    expect(readings).toMatchObject({ standard: 'common-ground', within: true })
    expect(Math.abs(value(readings, 'black') - 0.03)).toBeLessThan(0.002)
    expect(Math.abs(value(readings, 'white') - 0.95)).toBeLessThan(0.002)
    const milky = await pale('measure', greys('milky.png', 0.12, 0.95), '--json')
    expect(milky.code).toBe(1)
    expect((JSON.parse(milky.out) as Measured).readings[0]).toMatchObject({
      id: 'black',
      outside: true,
      verdict: 'high',
    })
    expect((await pale('measure', at('milky.png'), '--standard', 'as-lit')).code).toBe(0)
    expect((await pale('measure', at('milky.png'))).out).toMatch(
      /1 reading lies outside "Common ground".\n▲ Black: 12\.\d %\. The standard wants 0\.0 to 8\.0 %\./,
    )
  })

  test('a standard from a file, a part of the picture, and a card', async () => {
    const standard = {
      id: 'own-test',
      name: 'Mine',
      tip: '',
      targets: { black: { low: 0.1, high: 0.14, tolerance: 0 } },
    }
    writeFileSync(
      at('mine.json'),
      JSON.stringify({ kind: 'pale-meridian-standards', version: 1, standards: [standard] }),
    )
    expect((await pale('measure', greys('milky.png', 0.12, 0.95), '--standard', at('mine.json'))).code).toBe(0)
    const part = JSON.parse((await pale('measure', at('milky.png'), '--box', '200,0,200,60', '--json')).out) as Measured
    expect(Math.abs(value(part, 'black') - middle(200))).toBeLessThan(0.005)
    const card = JSON.parse((await pale('measure', at('milky.png'), '--card', '170,10,4,20', '--json')).out) as Measured
    const light = middle(171.5) ** 2.4
    expect(Math.abs(value(card, 'cardExposure') - Math.log2(light / 0.18))).toBeLessThan(0.02)
  })

  test('a clip: its lead frame, one frame, and all with the worst named', async () => {
    const footage = 'demo/footage/courtyard.mov'
    const read = ['--encoding', 'log-400-95-a', '--gamut', 'w684', '--json'] as const
    const one = JSON.parse((await pale('measure', footage, ...read, '--frames', '10')).out) as Measured
    expect(one.frames).toEqual([10])
    const lead = JSON.parse((await pale('measure', footage, ...read)).out) as Measured
    expect(lead.frames).toHaveLength(1)
    execFileSync('ffmpeg', [
      '-v',
      'error',
      '-y',
      '-i',
      'demo/footage/market-gamma.mov',
      '-frames:v',
      '5',
      '-c',
      'copy',
      at('five.mov'),
    ])
    const all = await pale(
      'measure',
      at('five.mov'),
      '--encoding',
      'bt709-camera',
      '--gamut',
      'bt709',
      '--json',
      '--frames',
      'all',
    )
    const measured = JSON.parse(all.out) as Measured
    expect(measured.frames).toEqual([0, 1, 2, 3, 4])
    expect(all.code).toBe(measured.within ? 0 : 1)
  })

  test.each([
    [['measure'], /Name a picture/],
    [['measure', 'nothing.png'], /no file/],
    [['measure', 'GOOD', '--standard', 'strict'], /There is no standard "strict"/],
    [['measure', 'GOOD', '--box', '1,2,3'], /--box must look like/],
    [['measure', 'GOOD', '--box', '390,0,50,10'], /does not lie inside/],
    [['measure', 'GOOD', '--card', '0,0,0,0'], /does not lie inside/],
    [['measure', 'demo/footage/potter.mov', '--frames', '130'], /--frames must be a number from 0 to 119/],
  ])('%j is refused in one line', async (args, words) => {
    const good = greys('good.png', 0.03, 0.95)
    const { code, err } = await pale(...args.map((a) => (a === 'GOOD' ? good : a)))
    expect(code).toBe(2)
    expect(err).toMatch(words)
    expect(err.trim().split('\n')).toHaveLength(1)
  })
})

describe('balance', () => {
  interface BalancedClips {
    readonly clips: readonly {
      readonly note: string
      readonly choices: readonly {
        readonly id: string
        readonly sure: boolean
        readonly controls: readonly { readonly id: string; readonly from: number; readonly to: number }[]
      }[]
    }[]
  }

  test('a card in a clip gives one sure choice; its grade is kept and can be used', async () => {
    const clip = 'demo/footage/potter.mov'
    const args = [clip, '--encoding', 'log-351-128', '--frame', '24', '--card', '691,454,67,48', '--out', at('b.json')]
    const { code, out } = await pale('balance', ...args, '--json')
    expect(code).toBe(0)
    const [first] = (JSON.parse(out) as BalancedClips).clips
    expect(first!.choices).toHaveLength(1)
    const [{ sure, controls }] = first!.choices as [(typeof first & {})['choices'][0]]
    expect(sure).toBe(true)
    const to = new Map(controls.map((c) => [c.id, c]))
    expect(to.get('exposure')!.to).toBeCloseTo(0.7, 1)
    expect(to.get('tint')!.to).toBeGreaterThan(5)
    expect(to.get('contrast')!.to).toBe(to.get('contrast')!.from)
    const grade = JSON.parse(readFileSync(at('b.json'), 'utf8')) as GradeDocument
    expect(grade.show.method).toBe('rendered')
    expect((await pale('measure', clip, '--grade', at('b.json'), '--frames', '24', '--json')).code).not.toBe(2)
  })

  test('without a card it offers three, and says in words that nothing is moved for a window', async () => {
    const { out } = await pale('balance', 'demo/footage/window-bench.mov', '--encoding', 'log-400-95-a')
    expect(out).toMatch(/window-bench\.mov: nothing is changed/)
  })

  test('several clips at once; bad use ends with 2', async () => {
    const clips = ['demo/footage/potter.mov', 'demo/footage/kiln-night.mov']
    const { out } = await pale('balance', ...clips, '--json')
    expect((JSON.parse(out) as BalancedClips).clips).toHaveLength(2)
    expect((await pale('balance')).code).toBe(2)
    expect(await pale('balance', ...clips, '--out', at('two.json'))).toMatchObject({
      code: 2,
      err: expect.stringContaining('one clip'),
    })
    expect((await pale('balance', clips[0]!, '--card', '0,0,9999,9999')).code).toBe(2)
    expect((await pale('balance', clips[0]!, '--encoding', 'nothing')).code).toBe(2)
  })
})
