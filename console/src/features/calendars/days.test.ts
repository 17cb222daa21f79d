import { describe, expect, test } from 'vitest'
import { dayIn, inOrder, weekOf, withDay, type CalendarDocument } from './days'

const norway: CalendarDocument = {
  kind: 'calendar',
  name: 'norway',
  holidays: { '2026-05-17': 'Constitution Day', '2026-12-25': 'Christmas Day' },
  extra_working_days: ['2026-05-16'],
  periods: ['2026-12-25'],
}

describe('what a day is', () => {
  test.each([
    ['2026-11-30', 'usual', 'Working day'],
    ['2026-11-29', 'off', 'Day off'],
    ['2026-05-17', 'marked', 'Constitution Day'],
    ['2026-05-16', 'extra', 'Extra working day'],
    ['2026-12-25', 'marked', 'Christmas Day; a period begins'],
  ])('%s', (date, look, words) => {
    expect(dayIn(norway, date)).toEqual({ look, words })
  })

  test('a day that is worked in spite of a holiday is a working day, as the service has it', () => {
    const both = { ...norway, extra_working_days: ['2026-12-25'] }
    expect(dayIn(both, '2026-12-25').look).toBe('extra')
  })

  test('a week without working days has none', () => {
    expect(dayIn({ ...norway, week: [] }, '2026-11-30').look).toBe('off')
  })
})

describe('a week', () => {
  test('is written in its order, and the usual one not at all', () => {
    expect(inOrder(['sunday', 'monday'])).toEqual(['monday', 'sunday'])
    expect(inOrder(['friday', 'monday', 'tuesday', 'wednesday', 'thursday'])).toBeUndefined()
    expect(inOrder([])).toEqual([])
    expect(weekOf(norway)).toHaveLength(5)
  })
})

describe('a day changes', () => {
  test('to a holiday, and is no extra working day any more', () => {
    expect(withDay(norway, '2026-05-16', { holiday: 'Whit Saturday' })).toEqual({
      holidays: { '2026-05-16': 'Whit Saturday', '2026-05-17': 'Constitution Day', '2026-12-25': 'Christmas Day' },
      extra_working_days: [],
    })
  })

  test('to a working day, and is no holiday any more', () => {
    expect(withDay(norway, '2026-05-17', 'worked')).toEqual({
      holidays: { '2026-12-25': 'Christmas Day' },
      extra_working_days: ['2026-05-16', '2026-05-17'],
    })
  })

  test('back to what the week says', () => {
    expect(withDay(norway, '2026-05-17', 'by_week').holidays).not.toHaveProperty('2026-05-17')
    expect(withDay({ kind: 'calendar', name: 'bare' }, '2026-05-17', 'by_week')).toEqual({
      holidays: {},
      extra_working_days: [],
    })
  })
})
