// Chart.js in our own colours and faces; only what is used is registered.
import {
  BarController,
  BarElement,
  CategoryScale,
  Chart,
  Filler,
  Legend,
  LinearScale,
  LineController,
  LineElement,
  PointElement,
  ScatterController,
  Tooltip,
} from 'chart.js'

Chart.register(
  BarController,
  BarElement,
  CategoryScale,
  Filler,
  Legend,
  LinearScale,
  LineController,
  LineElement,
  PointElement,
  ScatterController,
  Tooltip,
)

const token = (name: string): string => getComputedStyle(document.documentElement).getPropertyValue(name).trim()

export const inks = {
  get ink() {
    return token('--ink')
  },
  get quiet() {
    return token('--ink-quiet')
  },
  get accent() {
    return token('--accent')
  },
  get hairline() {
    return token('--hairline')
  },
  get red() {
    return token('--trace-red')
  },
  get green() {
    return token('--trace-green')
  },
  get blue() {
    return token('--trace-blue')
  },
  get well() {
    return token('--well')
  },
}

/** Sets what all charts share; called once the tokens are there. */
export function themeCharts(): void {
  Chart.defaults.color = token('--ink-quiet')
  Chart.defaults.borderColor = token('--raised')
  Chart.defaults.font.family = token('--face')
  Chart.defaults.font.size = 11
  Chart.defaults.animation = false
  Chart.defaults.maintainAspectRatio = false
  Chart.defaults.plugins.tooltip.backgroundColor = token('--panel')
  Chart.defaults.plugins.tooltip.titleColor = token('--ink')
  Chart.defaults.plugins.tooltip.bodyColor = token('--ink')
}
