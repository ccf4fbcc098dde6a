// Balance for me: the choices for the frame in view, which of them is looked at, and taking one.
import { cutTo } from '@core/names'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import { applyChoice } from '@core/balance'
import type { GradeDocument } from '@core/grade'
import type { PicturedAnswer, PicturedCardChoice, PicturedChoice } from '../workers/aims-worker'
import { sentenceOf } from '../api/client'
import { useGrade } from './grade'
import { useOpenShot } from './open-shot'

export const useBalance = defineStore('balance', () => {
  const grade = useGrade()
  const openShot = useOpenShot()
  const answer = shallowRef<PicturedAnswer | null>(null)
  const asking = ref(false)
  /** The choices are good for the frame in view; whether they are for the clip's other moments is being seen. */
  const checking = ref(false)
  const fault = ref('')
  /** By a card that was found in the picture: it comes after the others. */
  const byCard = shallowRef<PicturedCardChoice | null>(null)
  /** The frame that the choices are of. */
  const frame = ref(0)
  /** The choice that is looked at. */
  const at = ref(0)
  const open = computed(() => asking.value || answer.value !== null || fault.value !== '')
  const choices = computed<readonly PicturedChoice[]>(() => [
    ...(answer.value?.choices ?? []),
    ...(answer.value && byCard.value ? [byCard.value] : []),
  ])
  const proposal = computed<GradeDocument | null>(() => {
    const choice = choices.value[at.value]
    return choice && grade.document && choice.moves.length > 0 ? applyChoice(grade.document, choice, frame.value) : null
  })

  function begin(ofFrame: number): void {
    close()
    frame.value = ofFrame
    asking.value = true
  }
  /** @param unchecked the clip's other moments have still to be looked at; the choice that is looked at stays so */
  function show(found: PicturedAnswer, unchecked: boolean): void {
    const looked = choices.value[at.value]?.id
    asking.value = false
    checking.value = unchecked
    answer.value = found
    at.value = Math.max(
      0,
      found.choices.findIndex((c) => c.id === looked),
    )
  }
  function offer(card: PicturedCardChoice | null): void {
    byCard.value = card
  }
  function fail(message: string): void {
    asking.value = false
    checking.value = false
    fault.value = message
  }
  function look(index: number): void {
    if (choices.value[index]) at.value = index
  }
  /** Takes a choice, or the one that is looked at. One that changes nothing only closes. */
  function take(index = at.value): void {
    const choice = choices.value[index]
    if (!choice) return
    const of = frame.value
    const card = choice.id === 'card' ? byCard.value : null
    close()
    // A card that was taken is one that was pointed out.
    if (card) void openShot.pickCard({ frame: of, area: card.area }).catch((error: unknown) => fail(sentenceOf(error)))
    if (choice.moves.length === 0) return
    const why = { kind: 'balance' as const, aims: [cutTo(`${choice.name}: ${choice.sentence}`, 200)] }
    grade.edit('Balance for me', (document) => applyChoice(document, choice, of), why)
  }
  function close(): void {
    answer.value = null
    byCard.value = null
    asking.value = false
    checking.value = false
    fault.value = ''
    at.value = 0
  }
  return {
    answer,
    asking,
    checking,
    fault,
    frame,
    at,
    open,
    choices,
    proposal,
    begin,
    show,
    offer,
    fail,
    look,
    take,
    close,
  }
})
