// Short names for the rooms, the same in every build.
import { fileURLToPath } from 'node:url'

export const aliases = {
  '@core': fileURLToPath(new URL('./core', import.meta.url)),
  '@media': fileURLToPath(new URL('./media', import.meta.url)),
  '@contracts': fileURLToPath(new URL('./contracts', import.meta.url)),
}
