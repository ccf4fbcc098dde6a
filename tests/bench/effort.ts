// How much is measured: PALE_SMOKE=1 runs every part once and briefly, to see that it still works.

export const smoke = process.env['PALE_SMOKE'] === '1'
/** `full` where it is measured, `brief` where it is only tried. */
export const rounds = (full: number, brief = 1): number => (smoke ? brief : full)
