// Grey cards found by themselves: in the demo's shots, and in photographs with and without a made one.
import { demoCard, judgeCards, shotsWithCards } from '../cards/judge'
import { photographsAreThere } from '../guess/photographs'
import { smoke } from './effort'

export async function measureCards(): Promise<readonly string[]> {
  const shots = smoke ? shotsWithCards.slice(0, 2) : shotsWithCards
  const demo = await Promise.all(shots.map(demoCard))
  const lines = [`the demo's shots: ${demo.filter((d) => d.right).length} of ${shots.length} (bar 95 %)`]
  if (!photographsAreThere()) return [...lines, 'The photographs are not installed (Debian package opencv-doc).']
  const { found, elsewhere, of, falseOnes, bare, smallest } = judgeCards(smoke ? 4 : 100, smoke ? 4 : 400)
  return [
    ...lines,
    `made cards from ${(smallest * 100).toFixed(1)} % of the width on, in photographs: ${found} of ${of} (bar 95 %); ` +
      `elsewhere: ${elsewhere}`,
    `found where there is none: ${falseOnes} of ${bare} (bar 1 of 200)`,
  ]
}
