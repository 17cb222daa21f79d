type Box = { left: number; right: number; top: number; bottom: number }

/** The corners of a line over days within a box; a day's number stays until the next, so the line has steps. */
export function pointsOf(values: number[], top: number, box: Box): string {
  const x = (day: number) => box.left + (day / Math.max(1, values.length - 1)) * (box.right - box.left)
  const y = (value: number) => box.bottom - (value / top) * (box.bottom - box.top)
  const round = (number: number) => Math.round(number * 10) / 10
  return values.map((value, day) => `${round(x(day))},${round(y(value))}`).join(' ')
}

/** A round top not below the highest value, and the numbers that are written beside the scale; whole ones, since findings are counted. */
export function scaleOf(highest: number): { top: number; steps: number[] } {
  if (highest <= 1) return { top: 1, steps: [0, 1] }
  const power = 10 ** Math.floor(Math.log10(highest))
  const unit = [1, 2, 5, 10].map((each) => each * power).find((each) => each >= highest) ?? highest
  const step = Math.max(1, [4, 2, 1].map((parts) => unit / parts).find(Number.isInteger) ?? unit)
  const top = Math.ceil(highest / step) * step
  return { top, steps: Array.from({ length: top / step + 1 }, (_, index) => index * step) }
}

/** `2026-11-30` as a day of a calendar, whatever the zone. */
export const dayWords = (day: string) =>
  new Intl.DateTimeFormat(undefined, { day: 'numeric', month: 'short', year: 'numeric', timeZone: 'UTC' }).format(
    new Date(`${day}T00:00:00Z`),
  )

export const dayAfter = (day: string, days: number) =>
  new Date(Date.parse(`${day}T00:00:00Z`) + days * 86_400_000).toISOString().slice(0, 10)
