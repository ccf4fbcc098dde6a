// pale encodings: the list of what can be decoded.
import { encodings, middleGrey } from '@core/colour'
import type { Command } from '../command'

export const encodingsCommand: Command = {
  name: 'encodings',
  summary: 'list the encodings, with the codes of black, grey and 90 % white',
  usage: 'pale encodings [--json]',
  options: {},
  run: async () => {
    const rows = encodings.map(({ id, name, group, gamutIds, source, curve }) => ({
      id,
      name,
      group,
      gamuts: gamutIds,
      source,
      blackCode: Math.round(curve.encode(0) * 1023),
      greyCode: Math.round(curve.encode(middleGrey) * 1023),
      white90Code: Math.round(curve.encode(0.9) * 1023),
      stopsAboveGrey: Number(Math.log2(curve.decode(1) / middleGrey).toFixed(2)),
    }))
    const lines = rows.map(
      (r) =>
        `${r.id.padEnd(15)} ${r.name.padEnd(20)} black ${String(r.blackCode).padStart(4)}  grey ` +
        `${String(r.greyCode).padStart(4)}  white ${String(r.white90Code).padStart(4)}  ` +
        `+${r.stopsAboveGrey.toFixed(1)} stops  ${r.gamuts.join(', ')}`,
    )
    return { json: rows, text: lines.join('\n') }
  },
}
