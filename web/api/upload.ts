// Sending a file as a request body with progress and cancel; fetch cannot report upload progress.
import type { ErrorBody } from '@contracts/responses'
import { RequestError } from './client'

export interface Upload<T> {
  readonly done: Promise<T>
  readonly cancel: () => void
}

/** @param onProgress share sent, 0..1 */
export function upload<T>(path: string, file: File, onProgress: (share: number) => void): Upload<T> {
  const xhr = new XMLHttpRequest()
  const done = new Promise<T>((resolve, reject) => {
    xhr.upload.onprogress = (e) => {
      if (e.lengthComputable) onProgress(e.loaded / e.total)
    }
    xhr.onload = () => {
      const body = parse(xhr.responseText)
      if (xhr.status >= 200 && xhr.status < 300) return resolve(body as T)
      const error = (body as ErrorBody | undefined)?.error
      reject(
        new RequestError(
          xhr.status,
          error?.code ?? 'unknown',
          error?.message ?? `The server answered with ${xhr.status}.`,
          error?.hint,
          body,
        ),
      )
    }
    xhr.onerror = () =>
      reject(
        new RequestError(0, 'no_answer', 'The server does not answer.', 'Nothing was stored; try again.', undefined),
      )
    xhr.onabort = () => reject(new RequestError(0, 'cancelled', 'Cancelled; nothing was stored.', undefined, undefined))
  })
  xhr.open('POST', `/api${path}`)
  xhr.setRequestHeader('content-type', 'application/octet-stream')
  xhr.send(file)
  return { done, cancel: () => xhr.abort() }
}

function parse(text: string): unknown {
  try {
    return JSON.parse(text)
  } catch {
    return undefined
  }
}
