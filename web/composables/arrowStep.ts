// Arrow keys as directions, for everything that moves by them.

/** −1, 0 or 1 along both axes; y runs downwards. */
export interface ArrowStep {
  readonly dx: number
  readonly dy: number
}

const steps: Readonly<Record<string, ArrowStep>> = {
  ArrowRight: { dx: 1, dy: 0 },
  ArrowLeft: { dx: -1, dy: 0 },
  ArrowDown: { dx: 0, dy: 1 },
  ArrowUp: { dx: 0, dy: -1 },
}
const still: ArrowStep = { dx: 0, dy: 0 }

/** The step that a pressed key asks for; zero for any other key. */
export const arrowStep = ({ key }: { readonly key: string }): ArrowStep => steps[key] ?? still
