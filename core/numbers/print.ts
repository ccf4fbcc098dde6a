// Numbers as people read them.

/**
 * A number with so many decimals and a true minus sign, never "−0".
 * @param plus whether a number above zero carries its sign too
 */
export function printNumber(value: number, decimals: number, plus = false): string {
  const digits = Math.abs(value).toFixed(decimals)
  if (Number(digits) === 0) return digits
  if (value < 0) return `−${digits}`
  return plus ? `+${digits}` : digits
}
