// Made-up scenes of light for teaching and judging the guess: shaded things in gradients, with highlights and deep
// shadow.

/** Uniform numbers of 0..1 from a seed (mulberry32). */
export function randomSource(seed: number): () => number {
  let state = seed >>> 0
  return () => {
    state = (state + 0x6d2b79f5) >>> 0
    let t = state
    t = Math.imul(t ^ (t >>> 15), t | 1)
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61)
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296
  }
}

export function gaussian(random: () => number): number {
  return Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random())
}

export interface Light {
  readonly width: number
  readonly height: number
  /** Scene-linear BT.709 triples. */ readonly data: Float64Array
}

/** Smooth noise of several octaves, about −1…1. */
function cloud(random: () => number, width: number, height: number, cells: number): Float64Array {
  const out = new Float64Array(width * height)
  for (let octave = 0, n = cells, weight = 0.5; octave < 5; octave++, n *= 2, weight *= 0.55) {
    const grid = Float64Array.from({ length: (n + 2) * (n + 2) }, () => random() * 2 - 1)
    for (let y = 0, i = 0; y < height; y++)
      for (let x = 0; x < width; x++, i++) {
        const gx = (x / width) * n
        const gy = (y / height) * n
        const ix = Math.floor(gx)
        const iy = Math.floor(gy)
        const fx = gx - ix
        const fy = gy - iy
        const at = (dx: number, dy: number): number => grid[(iy + dy) * (n + 2) + ix + dx]!
        out[i]! +=
          weight * ((at(0, 0) * (1 - fx) + at(1, 0) * fx) * (1 - fy) + (at(0, 1) * (1 - fx) + at(1, 1) * fx) * fy)
      }
  }
  return out
}

/** A random scene whose middle tone lies around half a stop under grey. */
export function madeUpScene(seed: number, width = 360, height = 202): Light {
  const random = randomSource(seed)
  const between = (a: number, b: number): number => a + (b - a) * random()
  const colour = (saturation: number): [number, number, number] => {
    const hue = between(0, 2 * Math.PI)
    const grey = 0.04 + 0.6 * random() ** 1.5
    return [0, 2.1, 4.2].map((turn) => grey * (1 + saturation * Math.cos(hue + turn))) as [number, number, number]
  }
  const data = new Float64Array(width * height * 3)
  const ground = colour(between(0, 0.3))
  const texture = cloud(random, width, height, 3)
  const light = cloud(random, width, height, 1)
  const fall = between(0.5, 3)
  const turn = between(0, 2 * Math.PI)
  const roughness = between(0.1, 0.8)
  const stops = new Float64Array(width * height)
  for (let y = 0, i = 0; y < height; y++)
    for (let x = 0; x < width; x++, i++) {
      stops[i] =
        light[i]! * 1.5 +
        fall * ((x / width - 0.5) * Math.cos(turn) + (y / height - 0.5) * Math.sin(turn)) +
        texture[i]! * roughness
      for (let c = 0; c < 3; c++) data[i * 3 + c] = ground[c]!
    }
  const things = 6 + Math.floor(random() * 14)
  for (let n = 0; n < things; n++) {
    const paint = colour(between(0, 0.75))
    const cx = between(0, width)
    const cy = between(0, height)
    const rx = between(0.04, 0.22) * width
    const ry = between(0.05, 0.35) * height
    const depth = between(0.5, 4)
    const lit = between(0, 2 * Math.PI)
    const dark = random() < 0.25 ? between(2, 6) : 0
    const gloss = random() < 0.4 ? between(2, 6) : 0
    const square = random() < 0.3
    for (let y = Math.max(0, Math.floor(cy - ry)); y < Math.min(height, cy + ry); y++)
      for (let x = Math.max(0, Math.floor(cx - rx)); x < Math.min(width, cx + rx); x++) {
        const u = (x - cx) / rx
        const v = (y - cy) / ry
        const d = square ? Math.max(Math.abs(u), Math.abs(v)) : Math.hypot(u, v)
        if (d >= 1) continue
        const i = y * width + x
        const shade = depth * (u * Math.cos(lit) + v * Math.sin(lit) - 0.6) * 0.7 - dark
        const spark = gloss
          ? 2 ** gloss * 0.05 * Math.exp(-(((u - 0.4 * Math.cos(lit)) ** 2 + (v - 0.4 * Math.sin(lit)) ** 2) * 60))
          : 0
        stops[i] = light[i]! * 1.5 + shade + texture[i]! * roughness * 0.4
        for (let c = 0; c < 3; c++) data[i * 3 + c] = paint[c]! + spark * 2 ** -stops[i]
      }
  }
  if (random() < 0.45) {
    // A window or lamp, well over white.
    const x0 = Math.floor(between(0, width * 0.8))
    const y0 = Math.floor(between(0, height * 0.7))
    const w = between(0.05, 0.25) * width
    const h = between(0.1, 0.4) * height
    const over = between(2, 8)
    for (let y = y0; y < Math.min(height, y0 + h); y++)
      for (let x = x0; x < Math.min(width, x0 + w); x++) stops[y * width + x] = over + texture[y * width + x]! * 0.6
  }
  if (random() < 0.25) {
    // A part in deep shade or night, with a soft or a hard edge.
    const turn = between(0, 2 * Math.PI)
    const at = between(-0.25, 0.25)
    const soft = between(0.01, 0.4)
    const depth = between(3, 9)
    for (let y = 0, i = 0; y < height; y++)
      for (let x = 0; x < width; x++, i++)
        stops[i]! -=
          depth *
          Math.min(
            1,
            Math.max(0, ((x / width - 0.5) * Math.cos(turn) + (y / height - 0.5) * Math.sin(turn) - at) / soft + 0.5),
          )
  }
  if (random() < 0.2) {
    // A glow of its own, far over white at its heart.
    const cx = between(0.1, 0.9)
    const cy = between(0.1, 0.9)
    const wide = between(0.03, 0.2)
    const over = between(3, 8)
    for (let y = 0, i = 0; y < height; y++)
      for (let x = 0; x < width; x++, i++)
        stops[i] = Math.max(stops[i]!, over - (Math.hypot(x / width - cx, (y / height - cy) * 0.56) / wide) * 4)
  }
  // Stray light that lifts the blacks, in some; surfaces with a grain of their own, in most.
  const veil = random() < 0.35 ? 0.18 * 2 ** -between(1.5, 6) : 0
  const grain = random() < 0.7 ? between(0, 0.12) : 0
  const patchy = cloud(random, width, height, 6)
  const tint = [between(0.85, 1.15), 1, between(0.8, 1.2)]
  for (let i = 0; i < stops.length; i++) {
    const rough = Math.max(0.1, 1 + grain * Math.max(0, patchy[i]! + 0.1) * gaussian(random))
    for (let c = 0; c < 3; c++) data[i * 3 + c] = (data[i * 3 + c]! * rough * 2 ** stops[i]! + veil) * tint[c]!
  }
  return toKey({ width, height, data }, -0.5 + gaussian(random))
}

/** Scales the light so that its median luminance lies `stops` from middle grey. */
function toKey(light: Light, stops: number): Light {
  const luminance = Float64Array.from(
    { length: light.data.length / 3 },
    (_, i) => 0.2126 * light.data[i * 3]! + 0.7152 * light.data[i * 3 + 1]! + 0.0722 * light.data[i * 3 + 2]!,
  ).sort()
  const gain = (0.18 * 2 ** stops) / luminance[luminance.length >> 1]!
  return { ...light, data: light.data.map((v) => v * gain) }
}
