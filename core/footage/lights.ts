// Where in a clip its brightest light is looked for.

/** Frames nearer than this show the same light. */
const apartFrames = 6

/** Up to `most` frames with the brightest lights, brightest first, none near another. Earlier ones win among equals. */
export function brightestFrames(lights: ArrayLike<number>, most: number): readonly number[] {
  const chosen: number[] = []
  const order = Array.from({ length: lights.length }, (_, i) => i).sort((a, b) => lights[b] - lights[a] || a - b)
  for (const i of order) {
    if (chosen.length === most) break
    if (chosen.every((c) => Math.abs(c - i) >= apartFrames)) chosen.push(i)
  }
  return chosen
}
