import fc from 'fast-check'
import { inverseMotion, motionAfter, moved, similarity, translation, type Homography } from '../homography'
import { fitMotion, startTracker } from '.'
import { thorough } from '../../../tests/support/thorough'
import { card, cardCentre, clipSize, frameOf, madeClips } from '../../../tests/support/made-clips'

const allowed = new Uint8Array(clipSize.width * clipSize.height)
for (let y = card.top + 6; y < card.bottom - 6; y++)
  allowed.fill(1, y * clipSize.width + card.left + 6, y * clipSize.width + card.right - 6)
const inHeights = (x: number, y: number): readonly [number, number] => [
  (x + 0.5) / clipSize.height,
  (y + 0.5) / clipSize.height,
]

/** One of each kind of motion; a thorough run has all. */
const enough = [
  'moving on a curve',
  'rolling by 90°',
  'growing to twice its size',
  'leaning',
  'seen from the side, turning and moving',
  'with the light going up by a stop',
  'partly hidden while it moves',
  'wholly hidden',
  'leaving the frame',
]
const clips = madeClips.filter((c) => thorough || enough.includes(c.name))

// Every frame is rendered and followed: seconds per clip. The motion is known; what is claimed must be right.
test.each(clips.map((c) => [c.name, c] as const))(
  '%s: the centre is followed to the pixel while it is claimed',
  (_, clip) => {
    const tracker = startTracker(frameOf(clip, 0), { kind: clip.kind, allowed })!
    const errors: number[] = []
    let lostAt = clip.frames
    for (let n = 1; n < clip.frames; n++) {
      const found = tracker.next(frameOf(clip, n))
      if (typeof found === 'string') {
        lostAt = n
        break
      }
      const [u, v] = moved(found.motion, ...inHeights(cardCentre.x, cardCentre.y))
      const [x, y] = moved(clip.motion(n), cardCentre.x, cardCentre.y)
      const [tu, tv] = inHeights(x, y)
      errors.push(Math.hypot(u - tu, v - tv) * clipSize.height)
      expect(found.agreeing).toBeLessThanOrEqual(1)
    }
    errors.sort((a, b) => a - b)
    expect(errors.at(-1) ?? 0).toBeLessThan(3)
    expect(errors[errors.length >> 1] ?? 0).toBeLessThan(1)
    if (clip.vanishes) expect(lostAt).toBeLessThan(clip.frames)
    else expect(lostAt).toBe(clip.frames)
  },
)

test('a flat picture holds nothing to follow', () => {
  const { width, height } = clipSize
  expect(
    startTracker({ width, height, values: new Float32Array(width * height).fill(0.3) }, { kind: 'position', allowed }),
  ).toBeNull()
})

describe('fitting', () => {
  const places = Array.from({ length: 60 }, (_, i) => ({ x: (i * 37) % 300, y: (i * 91) % 200 }))
  const far = (m: Homography, n: Homography): number =>
    Math.max(
      ...places.map((p) => {
        const [a, b] = moved(m, p.x, p.y)
        const [c, d] = moved(n, p.x, p.y)
        return Math.hypot(a - c, b - d)
      }),
    )
  const number = fc.double({ min: -1, max: 1, noNaN: true })
  test('finds the motion again, though a third of the points go elsewhere', () => {
    fc.assert(
      fc.property(number, number, number, number, (a, b, c, d) => {
        const motions = {
          position: translation(a * 40, b * 40),
          similarity: similarity(1 + c * 0.4, d * 0.6, a * 40, b * 40),
          affine: [1 + a * 0.3, b * 0.3, c * 30, d * 0.3, 1 - a * 0.2, b * 30, 0, 0, 1],
          perspective: motionAfter([1, 0, 0, 0, 1, 0, a * 6e-4, b * 6e-4, 1], similarity(1 + c * 0.2, d * 0.3, 0, 0)),
        } as const
        for (const kind of ['position', 'similarity', 'affine', 'perspective'] as const) {
          const motion = motions[kind] as Homography
          const pairs = places.map((p, i) => {
            const [x, y] = moved(motion, p.x, p.y)
            return {
              from: p,
              to: i % 3 === 0 ? { x: x + 20 + ((i * 7) % 50), y: y - 30 - ((i * 3) % 40) } : { x, y },
            }
          })
          const fit = fitMotion(kind, pairs, 1)!
          expect(far(fit.motion, motion)).toBeLessThan(1e-4)
          expect(fit.inliers.every((i) => i % 3 !== 0)).toBe(true)
        }
      }),
      { numRuns: 30 },
    )
  })
  test('says nothing where nothing agrees', () => {
    let state = 3
    const random = (): number => {
      state = (Math.imul(state, 1664525) + 1013904223) >>> 0
      return state / 2 ** 32
    }
    expect(
      fitMotion(
        'similarity',
        Array.from({ length: 12 }, () => ({
          from: { x: random() * 300, y: random() * 300 },
          to: { x: random() * 300, y: random() * 300 },
        })),
        1,
      ),
    ).toBeNull()
    expect(fitMotion('position', [], 1)).toBeNull()
  })
  test('a motion and its inverse lead home', () => {
    fc.assert(
      fc.property(number, number, (a, b) => {
        const m = similarity(1 + a * 0.5, b, 12, -3)
        expect(far(motionAfter(inverseMotion(m), m), translation(0, 0))).toBeLessThan(1e-9)
      }),
    )
  })
})
