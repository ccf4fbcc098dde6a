// LUT: a supplied table of colours, given the encoded domain of the side it stands on, or that of the camera it was
// made for.
import { encodings } from '../../colour'
import { lutTakesSide } from '../document'
import { intoDomain, lutOperations } from '../lut-operation'
import { defineStepKind } from '../step-kind'

const takes = [{ id: lutTakesSide, name: 'what this side carries' }, ...encodings.map(({ id, name }) => ({ id, name }))]

export const lut = defineStepKind<{ lutHash: string | null; interpolation: string; takes: string }>({
  id: 'lut',
  name: 'LUT',
  tip: 'A supplied table. On the display side it is given the display signal, on the scene side working log.',
  station: 'look',
  domain: 'encoded',
  pixelByPixel: true,
  order: 20,
  page: 'luts',
  firstSide: 'display',
  stands: 'always',
  many: true,
  inRegions: 'never',
  parameters: {
    lutHash: { type: 'lut', label: 'LUT', tip: 'The table to apply.', default: null },
    interpolation: {
      type: 'choice',
      label: 'Between points',
      tip: 'Tetrahedral keeps neutrals neutral; trilinear is what some older hardware does.',
      default: 'tetrahedral',
      options: [
        { id: 'tetrahedral', name: 'tetrahedral' },
        { id: 'trilinear', name: 'trilinear' },
      ],
    },
    takes: {
      type: 'choice',
      label: 'Made for',
      tip: 'What the table expects. The picture is converted to it on the way in, and back on the way out.',
      default: lutTakesSide,
      options: takes,
    },
  },
  isNeutral: ({ lutHash }) => lutHash === null,
  prepare: ({ lutHash, interpolation, takes: domain }, surroundings) => {
    const table = lutHash === null ? undefined : surroundings.lut(lutHash)
    if (!table) throw new RangeError(`The LUT ${String(lutHash)} is not at hand.`)
    const { into, back } = intoDomain(domain, surroundings)
    return (at) => [
      ...into,
      ...lutOperations(
        table,
        interpolation === 'trilinear' ? 'trilinear' : 'tetrahedral',
        into.length > 0 ? 'code' : at,
      ),
      ...back,
    ]
  },
})
