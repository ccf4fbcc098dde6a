// The hues of Oklab along an axis, from 0° to 360°, as a picture behind charts and curves.

export const hueWheel =
  'linear-gradient(to right, ' + `${Array.from({ length: 25 }, (_, i) => `oklch(0.68 0.11 ${i * 15}deg)`).join(', ')})`
