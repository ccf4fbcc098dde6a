// Work that may fail: what went wrong stands as a sentence until the next attempt goes well.
import { ref, type Ref } from 'vue'
import { sentenceOf } from '../api/client'

export function useAttempt(): {
  readonly fault: Ref<string>
  readonly attempt: (work: () => Promise<unknown>) => Promise<void>
} {
  const fault = ref('')
  async function attempt(work: () => Promise<unknown>): Promise<void> {
    try {
      await work()
      fault.value = ''
    } catch (error) {
      fault.value = sentenceOf(error)
    }
  }
  return { fault, attempt }
}
