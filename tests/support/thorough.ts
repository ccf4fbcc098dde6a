/**
 * With PALE_THOROUGH=1 tests that try many cases of one kind try all of them; else enough to notice what breaks, so
 * that every submission can be checked.
 */
export const thorough = process.env['PALE_THOROUGH'] === '1'
