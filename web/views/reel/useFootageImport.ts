// Bringing files in: sent in parts that can be gone on with, then imported by the server in the background.
import { onScopeDispose, ref, type Ref } from 'vue'
import { Upload, type DetailedError } from 'tus-js-client'
import { checked } from '@contracts/check'
import { NewImport } from '@contracts/requests'
import type { ErrorBody } from '@contracts/responses'
import { post, sentenceOf } from '../../api/client'

export interface RunningUpload {
  readonly key: number
  readonly name: string
  /** Share sent, 0..1. */
  share: number
  fault: string
}

export interface FootageImport {
  readonly running: Ref<RunningUpload[]>
  /** Films and stills one by one; numbered pictures of one stem together, as a sequence. */
  readonly add: (files: readonly File[]) => void
  readonly link: (path: string, pictures: boolean) => Promise<void>
  readonly linkAgain: (path: string, moved: { hash: string; pictures: boolean } | null) => Promise<void>
  readonly resume: (key: number) => void
  readonly cancel: (key: number) => void
}

const partBytes = 8 * 1024 * 1024
const pictureName = /^(.*?)(?<!\d)(\d+)\.(png|tiff?|dpx|exr|jpe?g)$/i

/** Files that belong together: a sequence of at least two numbered pictures, or one file. */
export function grouped<T extends { readonly name: string }>(
  files: readonly T[],
): readonly { readonly name: string; readonly files: readonly T[]; readonly pictures: boolean }[] {
  const sets = new Map<string, T[]>()
  for (const file of files) {
    const match = pictureName.exec(file.name)
    const key = match ? `${match[1]}.${match[3]?.toLowerCase()}` : `file ${sets.size} ${file.name}`
    sets.set(key, [...(sets.get(key) ?? []), file])
  }
  const number = (name: string): number => Number(pictureName.exec(name)?.[2] ?? 0)
  return [...sets.values()].flatMap((set) => {
    const [first] = set
    if (!first) return []
    const pictures = set.length > 1
    const ordered = pictures ? [...set].sort((a, b) => number(a.name) - number(b.name)) : set
    const numbers = ordered.map((f) => number(f.name))
    const missing = numbers.slice(0, -1).find((n, i) => numbers[i + 1] !== n + 1)
    if (pictures && missing !== undefined)
      return [{ name: `${first.name}: picture ${missing + 1} is missing`, files: [], pictures: true }]
    const match = pictureName.exec(first.name)
    return [
      {
        name:
          pictures && match
            ? `${(match[1] ?? '').replace(/(?<![._-])[._-]+$/, '') || 'Pictures'}.${match[3]}`
            : first.name,
        files: ordered,
        pictures,
      },
    ]
  })
}

/** Grows with every file that is chosen, in this session and the next. */
let lastOrder = 0
function nextOrder(): number {
  lastOrder = Math.max(lastOrder + 1, Date.now() * 1000)
  return lastOrder
}

export function useFootageImport(projectId: () => string, onQueued: () => void): FootageImport {
  const running = ref<RunningUpload[]>([])
  const jobs = new Map<number, { upload: Upload | null; go: () => void }>()
  let nextKey = 1
  const find = (key: number): RunningUpload | undefined => running.value.find((r) => r.key === key)

  function forget(key: number): void {
    jobs.delete(key)
    running.value = running.value.filter((r) => r.key !== key)
  }

  function send(file: File, onSent: (bytes: number) => void, onStarted: (upload: Upload) => void): Promise<string> {
    return new Promise((done, fail) => {
      const upload = new Upload(file, {
        endpoint: '/api/uploads',
        chunkSize: partBytes,
        retryDelays: [300, 1000, 3000, 6000],
        metadata: { filename: file.name },
        removeFingerprintOnSuccess: true,
        onProgress: (sent) => onSent(sent),
        onSuccess: () => done(upload.url?.split('/').at(-1) ?? ''),
        onShouldRetry: (error) => isWorthAnother(error.originalResponse?.getStatus() ?? 0),
        onError: (error) => fail(new Error(uploadFault(error))),
      })
      onStarted(upload)
      // An upload of the same file that was broken off is gone on with.
      void upload.findPreviousUploads().then((before) => {
        if (before[0]) upload.resumeFromPreviousUpload(before[0])
        upload.start()
      }, fail)
    })
  }

  function add(files: readonly File[]): void {
    for (const group of grouped(files)) {
      const key = nextKey++
      const order = nextOrder()
      running.value.push({
        key,
        name: group.name,
        share: 0,
        fault: group.files.length === 0 ? 'Bring the whole sequence.' : '',
      })
      if (group.files.length === 0) continue
      const total = group.files.reduce((sum, f) => sum + f.size, 0)
      const ids: string[] = []
      const job = { upload: null as Upload | null, go: () => void run() }
      jobs.set(key, job)
      const run = async (): Promise<void> => {
        const item = find(key)
        if (item) item.fault = ''
        try {
          let before = group.files.slice(0, ids.length).reduce((sum, f) => sum + f.size, 0)
          for (const file of group.files.slice(ids.length)) {
            const start = before
            ids.push(
              await send(
                file,
                (bytes) => {
                  const now = find(key)
                  if (now) now.share = (start + bytes) / Math.max(1, total)
                },
                (upload) => {
                  job.upload = upload
                },
              ),
            )
            before += file.size
            if (!find(key)) return
          }
          await post(
            `/projects/${projectId()}/imports`,
            checked(NewImport, { uploads: ids, pictures: group.pictures, name: group.name, order }),
          )
          forget(key)
          onQueued()
        } catch (error) {
          const now = find(key)
          if (now) now.fault = sentenceOf(error)
        }
      }
      void run()
    }
  }

  async function link(path: string, pictures: boolean): Promise<void> {
    await post(`/projects/${projectId()}/imports`, checked(NewImport, { path, pictures, order: nextOrder() }))
    onQueued()
  }

  /** The same file from another place, for a clip whose linked original is no longer where it was. */
  async function linkAgain(path: string, moved: { hash: string; pictures: boolean } | null): Promise<void> {
    if (!moved) return
    const { hash: again, pictures } = moved
    await post(`/projects/${projectId()}/imports`, checked(NewImport, { path, pictures, again }))
    onQueued()
  }

  function cancel(key: number): void {
    void jobs
      .get(key)
      ?.upload?.abort(true)
      .catch(() => undefined)
    forget(key)
  }
  onScopeDispose(() => jobs.forEach(({ upload }) => void upload?.abort().catch(() => undefined)))
  return { running, add, link, linkAgain, resume: (key) => jobs.get(key)?.go(), cancel }
}

/** What the server refuses it refuses again, but for what another tab has hold of. 507: the disk is full. */
const isWorthAnother = (status: number): boolean =>
  status === 409 || status === 423 || (status !== 507 && (status === 0 || status >= 500))

/** What the server said about an upload, or that it said nothing. */
function uploadFault(error: Error | DetailedError): string {
  const body = 'originalResponse' in error ? error.originalResponse?.getBody() : undefined
  const said = body?.startsWith('{') ? (JSON.parse(body) as Partial<ErrorBody>).error : undefined
  if (said) return [said.message, said.hint].filter(Boolean).join(' ')
  return /body|response/.test(error.message) ? 'The server does not answer; what was sent is kept.' : error.message
}

/** The files of a drop, folders looked into. */
export async function filesOfDrop(transfer: DataTransfer): Promise<File[]> {
  const entries = [...transfer.items].map((item) => item.webkitGetAsEntry()).filter((e) => e !== null)
  if (entries.length === 0) return [...transfer.files]
  const read = async (entry: FileSystemEntry): Promise<File[]> => {
    if (entry.isFile) return [await new Promise<File>((done, fail) => (entry as FileSystemFileEntry).file(done, fail))]
    const reader = (entry as FileSystemDirectoryEntry).createReader()
    const found: FileSystemEntry[] = []
    for (;;) {
      const some = await new Promise<FileSystemEntry[]>((done, fail) => reader.readEntries(done, fail))
      if (some.length === 0) break
      found.push(...some)
    }
    return (await Promise.all(found.map(read))).flat()
  }
  return (await Promise.all(entries.map(read))).flat().filter((f) => !f.name.startsWith('.'))
}
