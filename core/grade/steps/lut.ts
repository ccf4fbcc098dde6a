// LUT: a supplied table of colours, applied to the encoded domain of the side it stands on.
import { lutOperation } from '../lut-operation'
import { defineStepKind } from '../step-kind'

export const lut = defineStepKind<{ lutHash: string | null; interpolation: string }>({
  id: 'lut',
  name: 'LUT',
  tip: 'A supplied .cube table. On the display side it is given the display signal, on the scene side working log.',
  station: 'look',
  domain: 'encoded',
  pixelByPixel: true,
  regional: false,
  parameters: {
    lutHash: { type: 'lut', label: 'LUT', tip: 'The table to apply.', default: null },
    interpolation: { type: 'choice', label: 'Between points', tip: 'Tetrahedral keeps neutrals neutral; trilinear is what some older hardware does.', default: 'tetrahedral', options: [{ id: 'tetrahedral', name: 'tetrahedral' }, { id: 'trilinear', name: 'trilinear' }] },
  },
  isNeutral: ({ lutHash }) => lutHash === null,
  prepare: ({ lutHash, interpolation }, { lut: find }) => {
    const table = lutHash === null ? undefined : find(lutHash)
    if (!table) throw new RangeError(`The LUT ${String(lutHash)} is not at hand.`)
    return (at) => lutOperation(table, interpolation === 'trilinear' ? 'trilinear' : 'tetrahedral', at)
  },
})
