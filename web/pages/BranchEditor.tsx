import AddIcon from '@mui/icons-material/Add'
import DeleteIcon from '@mui/icons-material/DeleteOutlineOutlined'
import { Autocomplete, Box, Button, IconButton, Stack, TextField, Typography } from '@mui/material'
import { ALWAYS, type AnswerTest, type Branch, type Question, type QuestionKind } from '@flimbo/core/forms'
import { dayIn } from '@flimbo/core/time'
import { Pick } from '../conditions/index.ts'
import { DayField, useNow } from '../ui/index.ts'
import { answerChoices } from './answerChoices.ts'
import { NumberInput } from './NumberInput.tsx'

interface Props {
  readonly question: Question
  /** Those that are asked before it. */
  readonly earlier: readonly Question[]
  readonly titleOf: (question: Question) => string
  readonly said: (value: Readonly<Record<string, string>>) => string
  readonly fault: string | undefined
  readonly change: (branch: Branch) => void
}

const MATCHES = [
  ['all', 'all of these hold'],
  ['any', 'one of these holds'],
  ['none', 'none of these holds'],
] as const

/** Questions that are answered with a text. */
const WRITTEN: readonly QuestionKind[] = ['short', 'long', 'mail', 'phone', 'hidden']

/** What an answer to a question can be asked for. */
function testsOf(question: Question): readonly (readonly [AnswerTest['is'], string])[] {
  const always = [
    ['answered', 'is answered'],
    ['empty', 'is not answered'],
  ] as const
  if (question.kind === 'number' || question.kind === 'rating' || question.kind === 'scale')
    return [['least', 'is at least'], ['most', 'is at most'], ...always]
  if (question.kind === 'date')
    return [['from', 'is on this day or later'], ['until', 'is on this day or earlier'], ...always]
  if (WRITTEN.includes(question.kind)) return [...always, ['says', 'contains these words']]
  return answerChoices(question, () => '') ? [['chosen', 'is one of'], ...always] : always
}

/** A test of a kind, as it begins. */
function newTest(question: Question, is: AnswerTest['is'], said: Props['said'], today: string): AnswerTest {
  if (is === 'chosen')
    return {
      question: question.id,
      is,
      of: (answerChoices(question, said) ?? []).slice(0, 1).map(([key]) => key),
    }
  if (is === 'from' || is === 'until') return { question: question.id, is, day: today }
  if (is === 'says') return { question: question.id, is, text: '' }
  return is === 'least' || is === 'most'
    ? { question: question.id, is, than: 1 }
    : { question: question.id, is }
}
/** The kind that a question is asked for first. */
const firstTest = (question: Question, said: Props['said'], today: string) =>
  newTest(question, testsOf(question)[0]?.[0] ?? 'answered', said, today)

/** When a question is asked: always, or by the answers to those before it. */
export function BranchEditor({ question, earlier, titleOf, said, fault, change }: Props) {
  const { branch } = question
  const today = dayIn('UTC', useNow())
  const answered = earlier.filter(({ kind }) => kind !== 'section')
  const [first] = answered
  const set = (at: number, test: AnswerTest) => {
    change({ ...branch, tests: branch.tests.map((each, i) => (i === at ? test : each)) })
  }
  const add = first && (
    <Button
      size="small"
      startIcon={<AddIcon />}
      onClick={() => {
        change({ ...branch, tests: [...branch.tests, firstTest(answered.at(-1) ?? first, said, today)] })
      }}
    >
      Add condition
    </Button>
  )
  return (
    <Box role="group" aria-label="When it is asked" sx={{ borderTop: 1, borderColor: 'divider', pt: 1.5 }}>
      {branch.tests.length === 0 ? (
        <Stack direction="row" sx={{ alignItems: 'center', gap: 1 }}>
          <Typography variant="body2" sx={{ flex: 1 }}>
            Asked always.
          </Typography>
          {add}
        </Stack>
      ) : (
        <Stack sx={{ gap: 1.25 }}>
          <Pick
            label="Asked when"
            value={branch.match}
            choices={MATCHES}
            change={(match) => {
              change({ ...branch, match: match as Branch['match'] })
            }}
          />
          {branch.tests.map((test, i) => (
            <TestEditor
              key={i}
              nth={i + 1}
              test={test}
              answered={answered}
              titleOf={titleOf}
              said={said}
              change={(next) => {
                set(i, next)
              }}
              remove={() => {
                const tests = branch.tests.filter((_each, at) => at !== i)
                change(tests.length === 0 ? ALWAYS : { ...branch, tests })
              }}
            />
          ))}
          {add}
        </Stack>
      )}
      {fault !== undefined && (
        <Typography variant="caption" color="error" component="p">
          {fault}
        </Typography>
      )}
    </Box>
  )
}

interface TestProps extends Omit<Props, 'question' | 'earlier' | 'fault' | 'change'> {
  readonly nth: number
  readonly test: AnswerTest
  readonly answered: readonly Question[]
  readonly change: (test: AnswerTest) => void
  readonly remove: () => void
}

/** One condition: which answer, and what it must be. */
function TestEditor({ nth, test, answered, titleOf, said, change, remove }: TestProps) {
  const about = answered.find(({ id }) => id === test.question)
  const choices = (about && answerChoices(about, said)) ?? []
  const today = dayIn('UTC', useNow())
  return (
    <Box
      role="group"
      aria-label={`Condition ${String(nth)}`}
      sx={{ borderLeft: 2, borderColor: 'divider', pl: 1.25, display: 'grid', gap: 1 }}
    >
      <Stack direction="row" sx={{ gap: 1 }}>
        <Box sx={{ flex: 1 }}>
          <Pick
            label="Answer to"
            value={about ? test.question : ''}
            choices={answered.map((each) => [each.id, titleOf(each)] as const)}
            change={(id) => {
              const next = answered.find((each) => each.id === id)
              if (next) change(firstTest(next, said, today))
            }}
          />
        </Box>
        <IconButton size="small" aria-label={`Remove condition ${String(nth)}`} onClick={remove}>
          <DeleteIcon fontSize="small" />
        </IconButton>
      </Stack>
      {about && (
        <Pick
          label="Must be"
          value={test.is}
          choices={testsOf(about)}
          change={(is) => {
            change(newTest(about, is as AnswerTest['is'], said, today))
          }}
        />
      )}
      {test.is === 'chosen' && (
        <Autocomplete
          multiple
          size="small"
          options={choices.map(([key]) => key)}
          value={[...test.of]}
          getOptionLabel={(key) => choices.find(([each]) => each === key)?.[1] ?? key}
          onChange={(_event, of) => {
            if (of.length > 0) change({ ...test, of })
          }}
          renderInput={(params) => <TextField {...params} label="Choices" />}
        />
      )}
      {(test.is === 'from' || test.is === 'until') && (
        <DayField
          label="Day"
          value={test.day}
          change={(day) => {
            if (day !== '') change({ ...test, day })
          }}
        />
      )}
      {test.is === 'says' && (
        <TextField
          size="small"
          label="Words"
          value={test.text}
          slotProps={{ htmlInput: { maxLength: 100 } }}
          onChange={({ target }) => {
            change({ ...test, text: target.value })
          }}
        />
      )}
      {(test.is === 'least' || test.is === 'most') && (
        <NumberInput
          label="Number"
          value={test.than}
          change={(than) => {
            change({ ...test, than: than ?? 0 })
          }}
        />
      )}
    </Box>
  )
}
