// Balance for me: one choice where the evidence is sure, else three to choose from; in the order of a colourist's
// means, and nothing that makes the picture worse.
export { applyChoice, balance, byFoundCard, type BalanceAnswer, type BalanceChoice, type CardChoice } from './balance'
export { type BalanceQuestion, type Clip } from './evidence'
export { eyeMeasures, worse, type EyeMeasures } from './eye'
