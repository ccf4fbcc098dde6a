// Asking a server that is busy: it says when it is worth asking again (RFC 9110, clause 10.2.3), and is asked then.

const mostTries = 5
const longestSeconds = 10

const pause = (seconds: number, signal?: AbortSignal | null): Promise<void> =>
  new Promise((done, fail) => {
    const timer = setTimeout(done, seconds * 1000)
    signal?.addEventListener(
      'abort',
      () => {
        clearTimeout(timer)
        fail(signal.reason as Error)
      },
      { once: true },
    )
  })

/** As `fetch`. Only what changes nothing is asked again by itself. */
export async function patientFetch(url: string, init: RequestInit = {}): Promise<Response> {
  for (let tries = 1; ; tries++) {
    const response = await fetch(url, init)
    const seconds = Number(response.headers.get('retry-after') ?? NaN)
    const again = response.status === 503 && (init.method ?? 'GET') === 'GET' && tries < mostTries
    if (!again || !(seconds > 0 && seconds <= longestSeconds)) return response
    await pause(seconds, init.signal)
  }
}
