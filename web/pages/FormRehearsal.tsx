import { Box, Button, MenuItem, Stack, TextField, Typography } from '@mui/material'
import { said, type Reading } from '@flimbo/core/fields'
import { OTHER, questionTitle, walkForm, type Answer, type Asked, type Question } from '@flimbo/core/forms'
import { useState } from 'react'
import { DayField } from '../ui/index.ts'
import { answerChoices } from './answerChoices.ts'

/** Questions that conditions ask about, in their order: what is answered to others changes nothing. */
export function decidingQuestions(questions: readonly Question[]): Asked[] {
  const asked = new Set(questions.flatMap(({ branch }) => branch.tests.map((test) => test.question)))
  return questions.filter((each): each is Asked => each.kind !== 'section' && asked.has(each.id))
}

/** The answer that was chosen or typed here. */
export function rehearsedAnswer(question: Question, typed: string | undefined): Answer | undefined {
  if (typed === undefined || typed === '') return undefined
  if (question.kind === 'yesno') return typed === 'yes'
  if (question.kind === 'consent') return typed === 'yes' ? true : undefined
  if ('choices' in question) return typed === OTHER ? { chosen: [], other: 'other' } : { chosen: [typed] }
  if (question.kind !== 'number' && question.kind !== 'rating' && question.kind !== 'scale') return typed
  const number = Number(typed.replace(',', '.'))
  return Number.isFinite(number) ? number : undefined
}

/** Who sees which questions: answers are chosen as somebody would give them, and what they are then asked is said. */
export function FormRehearsal({ questions, reading }: { questions: readonly Question[]; reading: Reading }) {
  const [typed, setTyped] = useState<Readonly<Record<string, string>>>({})
  const deciding = decidingQuestions(questions)
  if (deciding.length === 0) return null
  const textOf = (value: Readonly<Record<string, string>>) => said(reading, value).text
  const titleOf = (question: Question) => questionTitle(question, textOf)
  const { shown } = walkForm(questions, (question) => rehearsedAnswer(question, typed[question.id]))
  const left = questions.filter(({ id }) => !shown.has(id))
  return (
    <Box role="group" aria-label="Rehearsal" sx={{ mt: 2, borderTop: 1, borderColor: 'divider', pt: 1.5 }}>
      <Stack direction="row" sx={{ alignItems: 'center', mb: 1 }}>
        <Typography variant="h3" sx={{ flex: 1 }}>
          Who is asked what
        </Typography>
        <Button
          size="small"
          disabled={Object.keys(typed).length === 0}
          onClick={() => {
            setTyped({})
          }}
        >
          Clear
        </Button>
      </Stack>
      <Stack sx={{ gap: 1.25 }}>
        {deciding.map((question) => {
          const choices = answerChoices(question, textOf)
          if (question.kind === 'date')
            return (
              <DayField
                key={question.id}
                label={titleOf(question)}
                value={typed[question.id] ?? ''}
                change={(day) => {
                  setTyped({ ...typed, [question.id]: day })
                }}
              />
            )
          return (
            <TextField
              key={question.id}
              select={choices !== null}
              size="small"
              label={titleOf(question)}
              // What is not asked is not answered.
              disabled={!shown.has(question.id)}
              value={typed[question.id] ?? ''}
              slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
              onChange={({ target }) => {
                setTyped({ ...typed, [question.id]: target.value })
              }}
            >
              {choices && <MenuItem value="">Not answered</MenuItem>}
              {choices?.map(([key, name]) => (
                <MenuItem key={key} value={key}>
                  {name}
                </MenuItem>
              ))}
            </TextField>
          )
        })}
      </Stack>
      <Typography variant="body2" sx={{ mt: 1.25 }} role="status">
        Whoever answers so is asked:
      </Typography>
      <Box component="ol" aria-label="Asked" sx={{ m: 0, pl: 3 }}>
        {questions
          .filter(({ id, kind }) => shown.has(id) && kind !== 'hidden')
          .map((question) => (
            <Typography
              component="li"
              variant="body2"
              key={question.id}
              sx={question.kind === 'section' ? { fontWeight: 650 } : {}}
            >
              {titleOf(question)}
            </Typography>
          ))}
      </Box>
      {left.length > 0 && (
        <Typography variant="body2" color="textSecondary">
          Not asked: {left.map(titleOf).join(', ')}
        </Typography>
      )}
    </Box>
  )
}
