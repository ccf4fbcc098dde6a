// Long: every reading has its case, by the same made pictures.
import { frameOf, normalFrom, pictureOf, randomFrom, shownAsIs } from '../../tests/support/pictures'
import {
  encodingById,
  gamutById,
  gamutToGamut,
  invert,
  lumaWeights,
  multiply,
  transform,
  workingGamut,
  type Vector3,
} from '../colour'
import { buildChain, compile, defaultGrade, execute, restSize, setParameter, setShow } from '../grade'
import { whiteBalanceMatrix } from '../grade/steps/white-balance'
import { codeSteps, measureBanding } from './banding'
import { readCard } from './card'
import { measureCasts } from './cast'
import { outOfRangeShare, rangeMisfit } from './delivery'
import { measureLevels } from './levels'
import { measureFrame } from './measure'
import { pixelsBehind } from './evidence'
import { measureNoise } from './noise'
import { judge, outside } from './reading'
import { measureRestraint } from './restraint'
import { measureSaturation } from './saturation'
import { sceneEndFindings } from './scene-ends'
import { standardById } from './standards'
import { readNeutralSkin, readSkin, subjectFindings, turn } from './subject'

const found = (findings: readonly { id: string; value: number }[], id: string): number =>
  findings.find((f) => f.id === id)?.value ?? Number.NaN
const whole = { left: 0, top: 0, right: 1, bottom: 1 }

describe('levels', () => {
  test('percentiles of known pictures within 0.1 %', () => {
    const random = randomFrom(3)
    for (let trial = 0; trial < 20; trial++) {
      const low = random() * 0.3
      const high = 0.6 + random() * 0.4
      const picture = shownAsIs(
        frameOf(1000, 12, (x) => {
          const v = low + ((high - low) * (x + 0.5)) / 1000
          return [v, v, v]
        }),
      )
      const levels = measureLevels(picture)
      expect(Math.abs(found(levels, 'black') - (low + (high - low) * 0.001))).toBeLessThan(0.001)
      expect(Math.abs(found(levels, 'middle') - (low + high) / 2)).toBeLessThan(0.001)
      expect(Math.abs(found(levels, 'white') - (low + (high - low) * 0.999))).toBeLessThan(0.001)
    }
  })

  test('the contrast range counts stops of light', () => {
    const picture = pictureOf(
      frameOf(200, 20, (x) => {
        const v = ((x < 100 ? 1 : 16) * 0.03) ** (1 / 2.4)
        return [v, v, v]
      }),
    )
    expect(Math.abs(found(measureLevels(picture), 'contrastRange') - 4)).toBeLessThan(0.01)
  })
})

/** Greys from dark to bright between coloured things, in one light that is off by a known cast. */
function castScene(seed: number, temperatureMired: number, tint: number, gain = 1) {
  const random = randomFrom(seed)
  const normal = normalFrom(random)
  const matrix = multiply(
    gamutToGamut(workingGamut, gamutById('bt709')),
    invert(whiteBalanceMatrix(workingGamut, temperatureMired, tint)),
  )
  const things = Array.from({ length: 40 }, (): Vector3 => {
    const level = 0.03 * 2 ** (random() * 4.2)
    if (random() < 0.4) return [level, level, level]
    const colour: Vector3 = [random(), random(), random()]
    return [level * (0.5 + colour[0]), level * (0.5 + colour[1]), level * (0.5 + colour[2])]
  })
  const lit = things.map((t) => transform(matrix, t))
  return shownAsIs(
    frameOf(160, 90, (x, y) => {
      const light = lit[Math.floor(x / 20) + 8 * Math.floor(y / 18)]!
      const shade = 0.75 + (0.5 * (x % 20)) / 20
      return light.map((v) => Math.max(0, v * shade * gain + normal() * 0.0015) ** (1 / 2.4)) as [
        number,
        number,
        number,
      ]
    }),
  )
}

describe('casts', () => {
  test('200 random casts: direction right in at least 98 %, size within 10 %', () => {
    const random = randomFrom(71)
    let right = 0
    let sized = 0
    let judged = 0
    for (let trial = 0; trial < 200; trial++) {
      // From a visible cast up; the step takes away what the light has.
      const mired = (random() < 0.5 ? -1 : 1) * (8 + random() * 32)
      const duv = (random() - 0.5) * 16
      const cast = measureCasts(castScene(1000 + trial, -mired, duv)).all
      if (!cast) continue
      judged++
      // On the diagram, one mired near daylight is about 0.4 · 10⁻³ of Duv.
      const truth = [mired * 0.4, duv]
      const seen = [cast.mired * 0.4, cast.duv * 1000]
      const angle = Math.abs(
        turn(((Math.atan2(seen[1]!, seen[0]!) - Math.atan2(truth[1]!, truth[0]!)) * 180) / Math.PI),
      )
      if (angle < 30) right++
      if (Math.abs(Math.hypot(seen[0]!, seen[1]!) / Math.hypot(truth[0]!, truth[1]!) - 1) <= 0.1) sized++
    }
    expect(judged).toBe(200)
    expect(right / 200).toBeGreaterThanOrEqual(0.98)
    expect(sized / 200).toBeGreaterThanOrEqual(0.98)
  })

  test('beige walls beside a few true greys are no cast: what cannot be told apart is not judged', () => {
    const picture = pictureOf(
      frameOf(320, 180, (x, y) => {
        const v = 0.15 + (0.6 * (x % 80)) / 80
        return y < 60 ? [v, v, v] : [v * 1.06, v, v * 0.9]
      }),
    )
    const { all } = measureCasts(picture)
    expect(all!.mired).toBeGreaterThan(10)
    expect(all!.confidence).toBeLessThan(1 / 3)
    const readings = judge(measureFrame(picture), standardById('broad-day'))
    expect(readings.find((r) => r.id === 'neutrals')).toMatchObject({ verdict: null, weight: 0 })
    expect(readings.find((r) => r.id === 'neutrals')?.sentence).toContain('Too uncertain')
    expect(all!.doubt).toMatch(/[Aa]nother colour/)
  })

  test('one colour that fills the frame says nothing of the light, whatever it is', () => {
    for (const tint of [
      [1.06, 1, 0.9],
      [1, 1, 1],
      [0.8, 1, 1.1],
    ] as const) {
      const { all } = measureCasts(
        pictureOf(
          frameOf(320, 180, (x) => {
            const v = 0.15 + (0.6 * (x % 80)) / 80
            return [v * tint[0], v * tint[1], v * tint[2]]
          }),
        ),
      )
      expect(all!.confidence).toBeLessThan(1 / 3)
      expect(all!.doubt).toBe('One colour fills the frame.')
    }
  })

  test('exposure does not turn the answer', () => {
    for (const stops of [-1, 0, 1]) {
      const { all } = measureCasts(castScene(1234, 20, 4, 2 ** stops))
      expect(all!.confidence).toBeGreaterThan(1 / 3)
      expect(Math.abs(all!.mired + 20)).toBeLessThan(4)
    }
  })

  test('a picture without greys is not judged', () => {
    const picture = pictureOf(frameOf(320, 180, (x, y) => [0.7 + 0.1 * Math.sin(x), 0.15 + 0.02 * Math.cos(y), 0.1]))
    const readings = judge(measureFrame(picture), standardById('broad-day'))
    for (const id of ['neutrals', 'castMids', 'castBlacks', 'castWhites'])
      expect(readings.find((r) => r.id === id)?.verdict ?? null).toBeNull()
  })

  test('a cast of the shadows alone is found in the shadows alone', () => {
    const picture = pictureOf(
      frameOf(320, 180, (x) => {
        const v = 0.06 + (0.9 * x) / 320
        return v < 0.22 ? [v, v * 1.02, v * 1.09] : [v, v, v]
      }),
    )
    const { blacks, mids, whites } = measureCasts(picture)
    expect(blacks!.distance).toBeGreaterThan(5)
    expect(blacks!.mired).toBeLessThan(-5)
    expect(mids!.distance).toBeLessThan(1)
    expect(whites!.distance).toBeLessThan(1)
  })
})

test('a card tells exposure and white exactly, before and after Level', () => {
  const matrix = multiply(
    gamutToGamut(workingGamut, gamutById('bt709')),
    invert(whiteBalanceMatrix(workingGamut, -18, 6)),
  )
  const light = transform(matrix, [0.18 * 2 ** 0.6, 0.18 * 2 ** 0.6, 0.18 * 2 ** 0.6])
  const frame = frameOf(60, 40, () => light.map((v) => v ** (1 / 2.4)) as [number, number, number])
  const card = readCard(pictureOf(frame), whole)!
  expect(Math.abs(card.exposureStops - 0.6)).toBeLessThan(0.01)
  expect(Math.abs(card.cast.mired - 18)).toBeLessThan(0.1)
  expect(Math.abs(card.cast.duv * 1000 - 6)).toBeLessThan(0.1)
  let grade = setParameter(defaultGrade('gamma-2.4', 'bt709'), 'exposure', 'exposureStops', -0.6)
  grade = setParameter(setParameter(grade, 'white-balance', 'temperatureMired', -18), 'white-balance', 'tint', 6)
  const after = readCard(pictureOf(frame, grade), whole)!
  expect(Math.abs(after.exposureStops)).toBeLessThan(0.01)
  expect(after.cast.distance).toBeLessThan(0.05)
})

/** Display signal of a luma, a chroma and a hue as the vectorscope has them. */
function signalOf(luma: number, chroma: number, degrees: number): [number, number, number] {
  const w = lumaWeights('bt709')
  const cb = (chroma / 2) * Math.cos((degrees * Math.PI) / 180)
  const cr = (chroma / 2) * Math.sin((degrees * Math.PI) / 180)
  const r = luma + cr * w.crDivisor
  const b = luma + cb * w.cbDivisor
  return [r, (luma - w.red * r - w.blue * b) / w.green, b]
}

describe('subjects', () => {
  test.each([
    [0.18, 0.12, 118],
    [0.32, 0.2, 123],
    [0.5, 0.22, 127],
    [0.68, 0.16, 121],
    [0.8, 0.1, 131],
  ])(
    'skin of luma %d, chroma %d at %d° is read within half a degree, noise and shading aside',
    (luma, chroma, degrees) => {
      const normal = normalFrom(randomFrom(9))
      const picture = pictureOf(
        frameOf(80, 80, (x) => {
          const shade = 0.85 + (0.3 * x) / 80
          return signalOf(luma * shade, chroma * shade, degrees).map((v) => v + normal() * 0.004) as [
            number,
            number,
            number,
          ]
        }),
      )
      const skin = readSkin(picture, whole)!
      expect(Math.abs(turn(skin.hueDegrees - degrees))).toBeLessThan(0.5)
      expect(Math.abs(skin.luma - luma)).toBeLessThan(0.005)
      expect(Math.abs(skin.chroma - chroma)).toBeLessThan(0.01)
    },
  )

  test('hair and a shirt in the area do not count, and an area without skin is no reading', () => {
    const picture = pictureOf(
      frameOf(80, 80, (_, y) => {
        if (y < 20) return [0.05, 0.05, 0.05]
        if (y > 60) return [0.2, 0.3, 0.6]
        return signalOf(0.45, 0.2, 124)
      }),
    )
    expect(Math.abs(readSkin(picture, whole)!.hueDegrees - 124)).toBeLessThan(0.3)
    expect(readSkin(picture, { left: 0, top: 0.8, right: 1, bottom: 1 })).toBeNull()
  })

  test('a card is taken under neutral light: the same skin in two lights gives one card, its darkness kept', () => {
    const skin: Vector3 = [0.3, 0.2, 0.15]
    const inLight = (mired: number, duv: number) => {
      const light = transform(
        multiply(gamutToGamut(workingGamut, gamutById('bt709')), invert(whiteBalanceMatrix(workingGamut, -mired, duv))),
        skin,
      ).map((v) => v ** (1 / 2.4)) as [number, number, number]
      return readNeutralSkin(pictureOf(frameOf(30, 30, () => light)), whole, { mired, duv: duv / 1000 })!
    }
    const neutral = inLight(0, 0)
    for (const [mired, duv] of [
      [20, 0],
      [-15, 6],
      [8, -7],
    ] as const) {
      const card = inLight(mired, duv)
      expect(Math.abs(turn(card.hueDegrees - neutral.hueDegrees))).toBeLessThan(0.5)
      expect(Math.abs(card.chroma - neutral.chroma)).toBeLessThan(0.005)
    }
  })

  test('a subject is held against its own card, not against a norm', () => {
    const picture = pictureOf(frameOf(40, 40, () => signalOf(0.3, 0.2, 116)))
    const card = { luma: 0.3, chroma: 0.2, hueDegrees: 116 }
    const own = subjectFindings(picture, { name: 'Dyer', area: whole, card })
    const norm = subjectFindings(picture, { name: 'Dyer', area: whole, card: null })
    expect(Math.abs(found(own, 'skinHue'))).toBeLessThan(0.3)
    expect(found(norm, 'skinHue')).toBeCloseTo(-7, 0)
    expect(judge(own, standardById('broad-day')).find((r) => r.id === 'skinLuma')?.target).toBeNull()
  })
})

describe('noise', () => {
  test.each([0.003, 0.006, 0.012])('of deviation %d is measured within 15 %% beside edges and shading', (deviation) => {
    const normal = normalFrom(randomFrom(31))
    const frame = frameOf(480, 270, (x, y) => {
      const base =
        (x >> 5) % 3 === 0
          ? 0.6 + 0.3 * Math.sin(x * y)
          : 0.08 + 0.1 * (y / 270) + ((y >> 4) % 5 === 0 ? 0.05 * Math.sin(x) : 0)
      return [base + normal() * deviation, base + normal() * deviation * 1.5, base + normal() * deviation * 2]
    })
    const noise = measureNoise(pictureOf(frame))!
    ;[1, 1.5, 2].forEach((times, c) =>
      expect(Math.abs(noise.channels[c]! / (deviation * times) - 1)).toBeLessThan(0.15),
    )
    expect(Math.abs(noise.gain - 1)).toBeLessThan(0.02)
  })

  test('a grade that lifts the dark says by how much it multiplied the noise', () => {
    const normal = normalFrom(randomFrom(5))
    const frame = frameOf(240, 160, () => {
      const v = 0.12 + normal() * 0.004
      return [v, v, v]
    })
    const grade = setParameter(defaultGrade('gamma-2.4', 'bt709'), 'exposure', 'exposureStops', 1.2)
    expect(measureNoise(pictureOf(frame, grade))!.gain).toBeCloseTo(2 ** (1.2 / 2.4), 1)
  })
})

test('the pixels behind noise are flat and dark, those behind coarse steps are as many as the reading says', () => {
  const normal = normalFrom(randomFrom(8))
  // Dark and flat at the left, bright at the right, striped in between.
  const frame = frameOf(240, 120, (x) => {
    let v = 0.4 + (0.3 * (x - 160)) / 80
    if (x < 80) v = 0.1 + normal() * 0.004
    else if (x < 160) v = 0.1 + 0.08 * (x & 1)
    return [v, v, v]
  })
  const picture = pictureOf(frame)
  const noisy = pixelsBehind(picture, 'noise')!
  expect(noisy.reduce((a, b) => a + b, 0)).toBe(measureNoise(picture)!.places * 144)
  expect(noisy.some((m, p) => m === 1 && p % 240 >= 160)).toBe(false)
  const steep = pictureOf(frame, setParameter(defaultGrade('gamma-2.4', 'bt709'), 'contrast', 'contrast', 3), 8)
  const marks = pixelsBehind(steep, 'banding')!
  expect(marks.reduce((a, b) => a + b, 0) / marks.length).toBeCloseTo(measureBanding(steep).share, 9)
  expect(measureBanding(steep).share).toBeGreaterThan(0)
  expect(pixelsBehind(picture, 'black')).toBeNull()
})

describe('coarse steps', () => {
  test.each([
    [8, 'full'],
    [8, 'legal'],
    [10, 'full'],
  ] as const)(
    'are warned of exactly where one code of %d bits, %s range, makes more than two display codes',
    (bits, range) => {
      const grade = setParameter(defaultGrade('log-420-95', undefined, range), 'contrast', 'contrast', 1.5)
      const chain = buildChain(grade, () => undefined)
      const span = range === 'legal' ? 219 * 2 ** (bits - 8) : 2 ** bits - 1
      // The picture is one pixel of every code; what each becomes is taken from the executed picture, not from the
      // steps.
      const source = frameOf(span + 1, 1, (x) => [x / span, x / span, x / span])
      const shown = execute(
        compile(grade, () => undefined, source, restSize),
        source,
      ).data
      const steps = codeSteps({ chain, sourceBits: bits, grade })
      expect(steps).toHaveLength(span)
      let risky = 0
      steps.forEach((step, i) => {
        const apart = Math.max(...[0, 1, 2].map((c) => Math.abs(shown[(i + 1) * 3 + c]! - shown[i * 3 + c]!))) / 257
        if (Math.abs(apart - 2) > 0.03) expect(step.displayCodes > 2).toBe(apart > 2)
        if (step.displayCodes > 2) risky++
      })
      const banding = measureBanding({ chain, sourceBits: bits, grade, source })
      expect(banding.share).toBeCloseTo(risky / (span + 1), 6)
      if (bits === 8) expect(risky).toBeGreaterThan(10)
    },
  )

  test('a picture that keeps away from those tones is not warned of', () => {
    const grade = setParameter(defaultGrade('log-420-95'), 'contrast', 'contrast', 1.5)
    const chain = buildChain(grade, () => undefined)
    const far = frameOf(64, 64, () => [0.02, 0.02, 0.02])
    expect(measureBanding({ chain, sourceBits: 8, grade, source: far }).share).toBe(0)
  })
})

describe('the delivered signal', () => {
  test('shared chroma at a hard edge of full colours leaves the range; a soft picture does not', () => {
    const hard = pictureOf(frameOf(64, 32, (x) => (x % 2 === 0 ? [1, 1, 1] : [1, 0, 0])))
    const soft = pictureOf(frameOf(64, 32, (x, y) => [0.2 + x / 128, 0.2 + y / 80, 0.4]))
    expect(outOfRangeShare(hard)).toBe(0.5)
    expect(outOfRangeShare(soft)).toBe(0)
  })

  test('a full-range file that is read as legal, and the reverse, are suspected; right ones are not', () => {
    const ramp = (low: number, high: number) =>
      frameOf(300, 30, (x) => {
        const v = low + ((high - low) * x) / 299
        return [v, v, v]
      })
    const legalFrame = (codes: readonly [number, number]) => {
      const f = ramp(0, 1)
      return { ...f, low: (codes[0] - 64) / 876, high: (codes[1] - 64) / 876 }
    }
    const legal = defaultGrade('gamma-2.4', 'bt709', 'legal')
    const full = defaultGrade('gamma-2.4', 'bt709')
    expect(rangeMisfit({ source: legalFrame([0, 1023]), grade: legal, sourceBits: 10 })).toMatchObject({
      likely: 'full',
    })
    expect(rangeMisfit({ source: legalFrame([0, 1023]), grade: legal, sourceBits: 10 })!.share).toBeGreaterThan(0.05)
    expect(rangeMisfit({ source: legalFrame([64, 940]), grade: legal, sourceBits: 10 })!.share).toBe(0)
    expect(rangeMisfit({ source: ramp(64 / 1023, 940 / 1023), grade: full, sourceBits: 10 })!.share).toBeGreaterThan(
      0.005,
    )
    expect(rangeMisfit({ source: ramp(0, 1), grade: full, sourceBits: 10 })!.share).toBe(0)
    expect(rangeMisfit({ source: ramp(0.1, 0.9), grade: defaultGrade('log-420-95'), sourceBits: 10 })).toBeNull()
  })
})

test('the hottest hue is found where it is', () => {
  const picture = pictureOf(
    frameOf(100, 100, (x, y) =>
      x >= 60 && x < 80 && y >= 20 && y < 40 ? signalOf(0.4, 0.7, 103) : signalOf(0.4, 0.1, 300),
    ),
  )
  const { top, hottestDegrees, area } = measureSaturation(picture)
  expect(Math.abs(top - 0.7)).toBeLessThan(0.02)
  expect(Math.abs(turn(hottestDegrees - 103))).toBeLessThan(3)
  expect(area).toEqual({ left: 0.6, top: 0.2, right: 0.8, bottom: 0.4 })
})

test('mist holds no true black and no true white, a sunny scene holds both; the stretch is then not asked for', () => {
  const { encode } = encodingById('log-420-95').curve
  const scene = (low: number, high: number) =>
    pictureOf(
      frameOf(200, 40, (x) => {
        const v = encode(0.18 * 2 ** (low + ((high - low) * x) / 199))
        return [v, v, v]
      }),
      defaultGrade('log-420-95'),
    )
  const alarms = (picture: ReturnType<typeof scene>) =>
    sceneEndFindings(picture)
      .filter((f) => f.alarm)
      .map((f) => f.id)
  expect(alarms(scene(-1.5, 1))).toEqual(['noWhite', 'noBlack'])
  expect(alarms(scene(-5, 2.4))).toEqual([])
  const readings = judge(measureFrame(scene(-1.5, 1)), standardById('broad-day'))
  expect(readings.find((r) => r.id === 'white')).toMatchObject({ verdict: null, weight: 0 })
  expect(readings.find((r) => r.id === 'white')?.sentence).toContain('not asked for')
})

test('restraint is nothing without a look, and what the look does with one', () => {
  const source = frameOf(120, 80, (x, y) => [0.2 + x / 200, 0.3 + y / 200, 0.4])
  const grade = setParameter(defaultGrade('gamma-2.4', 'bt709'), 'saturation', 'saturation', 1.4)
  expect(measureRestraint(pictureOf(source, grade)).difference).toBe(0)
  const look = {
    ...grade,
    steps: [...grade.steps, { ...grade.steps.find((s) => s.kind === 'saturation')!, id: 'look', regionId: 'all' }],
    regions: [{ id: 'all', name: 'All', enabled: true, strength: 1, invert: true, components: [] }],
  }
  const { difference, chromaRatio } = measureRestraint(pictureOf(source, look))
  expect(difference).toBeGreaterThan(1)
  expect(chromaRatio).toBeGreaterThan(1.25)
  expect(chromaRatio).toBeLessThan(1.45)
})

test('readings are ranked by how far outside they are, and say the number first', () => {
  const picture = pictureOf(
    frameOf(320, 180, (x, y) => {
      const v = 0.18 + (0.7 * x) / 320 + (0.02 * y) / 180
      return [v, v, v]
    }),
  )
  const readings = judge(measureFrame(picture), standardById('full-stretch'))
  const off = outside(readings)
  expect(off.map((r) => r.id)).toEqual(expect.arrayContaining(['black', 'white']))
  expect(off[0]?.id).toBe('black')
  expect(off.map((r) => r.weight)).toEqual([...off.map((r) => r.weight)].sort((a, b) => b - a))
  expect(readings.find((r) => r.id === 'black')?.sentence).toMatch(
    /^Black: 18\.\d %\. The standard wants 0\.0 to 1\.0 %\.$/,
  )
})

test('a display of high range is measured in its own terms', () => {
  const grade = setShow(defaultGrade('gamma-2.4', 'bt709'), { displayId: 'pq-1000' })
  const findings = measureFrame(
    pictureOf(
      frameOf(160, 90, (x) => {
        const v = 0.1 + (0.8 * x) / 160
        return [v, v, v]
      }),
      grade,
    ),
  )
  for (const f of findings) expect(Number.isFinite(f.value)).toBe(true)
  expect(found(findings, 'clipped')).toBe(0)
})

describe('pictures that are hardly any', () => {
  const colours = { black: [0, 0, 0], white: [1, 1, 1], red: [1, 0, 0], grey: [0.4, 0.4, 0.4] } as const
  test.each([
    [1, 1],
    [2, 1],
    [1, 7],
    [7, 5],
    [40, 3],
  ] as const)('of %d×%d are measured without a number that is none', (width, height) => {
    for (const colour of Object.values(colours))
      for (const grade of [
        defaultGrade('gamma-2.4', 'bt709'),
        defaultGrade('log-420-95'),
        setShow(defaultGrade('hlg'), { displayId: 'hlg' }),
      ]) {
        const readings = judge(
          measureFrame(
            pictureOf(
              frameOf(width, height, () => colour),
              grade,
            ),
            { card: whole, subjects: [{ name: 'Nobody', area: whole, card: null }] },
          ),
          standardById('broad-day'),
        )
        expect(readings.length).toBeGreaterThan(10)
        for (const r of readings) {
          expect(Number.isFinite(r.value)).toBe(true)
          expect(r.confidence).toBeGreaterThanOrEqual(0)
          expect(r.confidence).toBeLessThanOrEqual(1)
          expect(r.sentence).not.toMatch(/NaN|undefined|Infinity/)
        }
      }
  })
})
