// 3: black offset, balance by tone, highlights and shadows; a second saturation for less saturated colours.
// Literal: what an old schema meant never changes, whatever the program offers by now.
import { withMoreParameters, withStepsBehind, type Json } from './json'

const behind = {
  'white-balance': [
    { kind: 'black-offset', name: 'Black offset', params: { blackOffset: 0 }, id: 'black-offset' },
    {
      kind: 'balance-by-tone',
      name: 'Balance by tone',
      params: { shadowsMired: 0, shadowsTint: 0, highlightsMired: 0, highlightsTint: 0 },
      id: 'balance-by-tone',
    },
  ],
  contrast: [
    { kind: 'ends', name: 'Highlights and shadows', params: { highlightStops: 0, shadowStops: 0 }, id: 'ends' },
  ],
}
const more = { saturation: { quiet: 1 } }

export const toSchema3 = ({ steps, ...rest }: Json): Json => ({
  ...rest,
  steps: Array.isArray(steps)
    ? withStepsBehind(
        steps.map((s: unknown) => withMoreParameters(s, more)),
        rest['working'],
        behind,
      )
    : steps,
})
