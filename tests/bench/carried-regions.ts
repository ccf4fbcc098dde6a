// Where regions land that are carried to another shot: what stayed, what moved, and pictures with nothing in common.
import { judgeCarried, landed } from '../matching/carried'
import { smoke } from './effort'

export function measureCarried(): readonly string[] {
  const { regions, sure, strangers, wrong, msEach } = smoke ? judgeCarried(3, 2, 2) : judgeCarried(40, 40, 30)
  const off = sure.filter((v) => v > landed).length
  const at = (share: number): string => `${((sure[Math.floor((sure.length - 1) * share)] ?? NaN) * 100).toFixed(1)} %`
  return [
    `${regions} regions on made pairs, half of them on something that moved by 5 to 20 % of the width:`,
    `  taken without asking: ${sure.length}; of them further off than ${landed * 100} % of the width: ${off} (bar 0)`,
    `  off by: median ${at(0.5)}, 95th percentile ${at(0.95)}, worst ${at(1)}`,
    `nothing in common, and taken without asking: ${wrong} of ${strangers} (bar 0)`,
    `finding a region, with the making of its pair: ${msEach.toFixed(0)} ms`,
  ]
}
