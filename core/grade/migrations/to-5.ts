// 5: curves for each channel, curves for colours, and what a supplied table is given.
// Literal: what an old schema meant never changes, whatever the program offers by now.
import { isObject, withMoreParameters, withStepsBehind, type Json } from './json'

const straight = [
  { x: 0.0729, y: 0.0729 },
  { x: 0.8702, y: 0.8702 },
]
const more = {
  'tone-curve': { red: straight, green: straight, blue: straight, redStrength: 1, greenStrength: 1, blueStrength: 1 },
  lut: { takes: 'side' },
}
const behind = {
  saturation: [
    {
      kind: 'colour-curves',
      name: 'Colour curves',
      params: {
        hueByHue: [
          { x: 30, y: 0 },
          { x: 210, y: 0 },
        ],
        saturationByHue: [
          { x: 30, y: 1 },
          { x: 210, y: 1 },
        ],
        lightnessByHue: [
          { x: 30, y: 0 },
          { x: 210, y: 0 },
        ],
        saturationByLightness: [
          { x: -6, y: 1 },
          { x: 4, y: 1 },
        ],
        saturationBySaturation: [
          { x: 0, y: 1 },
          { x: 0.6, y: 1 },
        ],
        cleanEnds: 'off',
        quietNoise: 0,
      },
      id: 'colour-curves',
    },
  ],
}

export const toSchema5 = ({ steps, show, ...rest }: Json): Json => ({
  ...rest,
  steps: Array.isArray(steps)
    ? withStepsBehind(
        steps.map((s: unknown) => withMoreParameters(s, more)),
        rest['working'],
        behind,
      )
    : steps,
  show: isObject(show) ? { ...show, lutTakes: 'side' } : show,
})
