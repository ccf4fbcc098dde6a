// Footage shot at one rate for playback at another: every frame is kept, its time changes.

export interface Rate {
  readonly numerator: number
  readonly denominator: number
}

/**
 * How fast things move on screen when each frame shot at `shot` is shown at `played`: 60 shown at 24000/1001 is 0.3996.
 */
export const speedOf = (shot: Rate, played: Rate): number =>
  (played.numerator * shot.denominator) / (played.denominator * shot.numerator)

/** The rates offered for playback. */
export const commonRates: readonly Rate[] = [
  [24000, 1001],
  [24, 1],
  [25, 1],
  [30000, 1001],
  [30, 1],
  [48, 1],
  [50, 1],
  [60000, 1001],
  [60, 1],
].map(([numerator, denominator]) => ({ numerator: numerator, denominator: denominator }))

/** "23.976", "24", "59.94". */
export const rateName = ({ numerator, denominator }: Rate): string =>
  String(Number((numerator / denominator).toFixed(3)))
