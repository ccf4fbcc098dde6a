// pale fit: the seven numbers of a curve from measured pairs.
import { readFile, stat } from 'node:fs/promises'
import { fitLinLog, matchPatches, parseTable } from '@core/measure'
import type { Command } from '../command'
import { UsageError } from '../usage'

const largestTable = 1024 * 1024

export const fitCommand: Command = {
  name: 'fit',
  summary: 'fit a lin-log curve to a table of code and scene-linear light',
  usage: 'pale fit TABLE.csv [--json]',
  notes: ['One pair a line: code (0..1, or 8-, 10-, 12- or 16-bit), then light with middle grey at 0.18.'],
  options: {},
  run: async (_, [path]) => {
    if (path === undefined) throw new UsageError('Name a table: pale fit TABLE.csv')
    const info = await stat(path).catch(() => null)
    if (!info?.isFile()) throw new UsageError(`There is no file "${path}".`)
    if (info.size > largestTable) throw new UsageError(`"${path}" is larger than a table can be here (1 MB).`)
    const patches = parseTable(await readFile(path, 'utf8'))
    const { curve, residualStops, rmsStops } = fitLinLog(patches)
    const [known] = matchPatches(patches)
    const numbers = (['a', 'b', 'c', 'd', 'e', 'f', 'cut'] as const).map(
      (k) => `${k} ${Number(curve[k]).toPrecision(9)}`,
    )
    const near =
      known && known.errorCodes < 3
        ? [
            `Nearest known: ${known.encoding.name} (${known.encoding.id}), ${known.errorCodes.toFixed(2)} ` +
              `codes off at ${known.exposureStops.toFixed(2)} stops.`,
          ]
        : []
    return {
      json: {
        curve,
        residualStops,
        rmsStops,
        nearest: known && { id: known.encoding.id, errorCodes: known.errorCodes, exposureStops: known.exposureStops },
      },
      text: [
        ...numbers,
        `Residual ${rmsStops.toFixed(4)} stops over ${patches.length} patches`,
        ...residualStops.map(
          (r, i) => `  patch ${String(i + 1).padStart(2)}  ${r >= 0 ? '+' : '−'}${Math.abs(r).toFixed(4)} stops`,
        ),
        ...near,
      ].join('\n'),
    }
  },
}
