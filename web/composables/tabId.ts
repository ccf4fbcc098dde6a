// A name for this tab that a reload keeps and no other open tab has, a duplicated one included.
const key = 'pale-tab'
const fresh = (): string => Math.random().toString(36).slice(2, 12)

/** Claims a name for as long as the page lives. */
export async function claimTabId(): Promise<string> {
  const locks: LockManager | undefined = globalThis.navigator?.locks
  for (let id = sessionStorage.getItem(key) ?? fresh(); ; id = fresh()) {
    // Without locks (an address that is not secure) nothing is known of other tabs: a name of its own each time.
    if (!locks) return fresh()
    const mine = await new Promise<boolean>((done) => {
      void locks.request(`${key}.${id}`, { ifAvailable: true }, (lock) => {
        done(lock !== null)
        // Held until the page goes.
        return lock ? new Promise(() => undefined) : undefined
      })
    })
    if (!mine) continue
    sessionStorage.setItem(key, id)
    return id
  }
}

let claimed: Promise<string> | null = null
export const tabId = (): Promise<string> => (claimed ??= claimTabId())
