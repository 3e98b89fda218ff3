import { Box, Button, ButtonBase, Typography } from '@mui/material'
import { said } from '@flimbo/core/fields'
import {
  QUESTION_FIELDS,
  QUESTION_KINDS,
  QUESTION_NAMES,
  QUESTIONS_MAX,
  questionTitle,
  STARTING_FORMS,
  startingForm,
  type Question,
  type StartingFormKey,
} from '@flimbo/core/forms'
import { useState } from 'react'
import { swap } from '../ui/index.ts'
import { AddMenu } from './AddMenu.tsx'
import { BranchEditor } from './BranchEditor.tsx'
import { withQuestion, withQuestionCopy } from './editQuestions.ts'
import type { Editing } from './FieldInput.tsx'
import { FormRehearsal } from './FormRehearsal.tsx'
import { FieldsInput } from './FieldsInput.tsx'
import { QuestionActions } from './QuestionActions.tsx'

interface Props {
  readonly questions: readonly Question[]
  readonly path: string
  readonly editing: Editing
  readonly change: (questions: readonly Question[]) => void
}

/** The questions of a form in their order; the one that is chosen is open for editing. */
export function QuestionsField({ questions, path, editing, change }: Props) {
  const [chosen, setChosen] = useState<string | null>(questions[0]?.id ?? null)
  const textOf = (value: Readonly<Record<string, string>>) => said(editing, value).text
  const titleOf = (question: Question) => questionTitle(question, textOf)
  const fault = editing.faultAt(path)
  const isFaulty = ({ id }: Question, at: number) =>
    id !== chosen && pathsOf(questions[at]).some((name) => editing.faultAt(`${path}.${String(at)}.${name}`))
  return (
    <Box role="group" aria-label="Questions">
      <Typography variant="h3" sx={{ mb: 1 }}>
        Questions
      </Typography>
      {questions.length === 0 && (
        <Starts
          begin={(key) => {
            const form = startingForm(key, editing.language)
            change(form.questions)
            setChosen(form.questions[0]?.id ?? null)
          }}
        />
      )}
      {questions.map((question, at) => {
        const { id, kind } = question
        const isOpen = id === chosen
        const replace = (next: Question) => {
          change(questions.map((each, i) => (i === at ? next : each)))
        }
        return (
          <Box
            key={id}
            sx={{ border: 1, borderColor: isOpen ? 'primary.main' : 'divider', borderRadius: 1, mb: 0.75 }}
          >
            <ButtonBase
              aria-expanded={isOpen}
              onClick={() => {
                setChosen(isOpen ? null : id)
              }}
              sx={{
                width: '100%',
                display: 'block',
                textAlign: 'left',
                px: 1.25,
                py: 0.75,
                pl: kind === 'section' ? 1.25 : 2.25,
                '&:focus-visible': { outline: 3, outlineColor: 'primary.main' },
              }}
            >
              <Typography variant="body2" noWrap sx={{ fontWeight: kind === 'section' ? 650 : 400 }}>
                {titleOf(question)}
              </Typography>
              <Typography variant="caption" color={isFaulty(question, at) ? 'error' : 'textSecondary'}>
                {isFaulty(question, at) ? 'Something is missing here' : QUESTION_NAMES[kind]}
                {question.branch.tests.length > 0 && ', asked on conditions'}
              </Typography>
            </ButtonBase>
            {isOpen && (
              <Box sx={{ p: 1.25, pt: 0.5, display: 'grid', gap: 1.75 }}>
                <QuestionActions
                  title={titleOf(question)}
                  isFirst={at === 0}
                  isLast={at === questions.length - 1}
                  move={(by) => {
                    change(swap(questions, at, at + by))
                  }}
                  duplicate={() => {
                    const copied = withQuestionCopy(questions, id)
                    change(copied.questions)
                    setChosen(copied.id)
                  }}
                  remove={() => {
                    change(questions.filter((each) => each.id !== id))
                    setChosen(questions[at + 1]?.id ?? questions[at - 1]?.id ?? null)
                  }}
                />
                <FieldsInput
                  fields={QUESTION_FIELDS[kind]}
                  values={question as unknown as Record<string, unknown>}
                  before={`${path}.${String(at)}.`}
                  editing={editing}
                  change={(name, value) => {
                    // The field is one of this question's own, and so is its value.
                    replace({ ...question, [name]: value })
                  }}
                />
                <BranchEditor
                  question={question}
                  earlier={questions.slice(0, at)}
                  titleOf={titleOf}
                  said={textOf}
                  fault={editing.faultAt(`${path}.${String(at)}.branch`)}
                  change={(branch) => {
                    replace({ ...question, branch })
                  }}
                />
              </Box>
            )}
          </Box>
        )
      })}
      {fault !== undefined && (
        <Typography variant="caption" color="error" component="p">
          {fault}
        </Typography>
      )}
      <AddMenu
        label="Add question"
        kinds={QUESTION_KINDS}
        names={QUESTION_NAMES}
        isFull={questions.length >= QUESTIONS_MAX}
        add={(kind) => {
          const made = withQuestion(questions, kind, chosen)
          change(made.questions)
          setChosen(made.id)
        }}
      />
      <FormRehearsal questions={questions} reading={editing} />
    </Box>
  )
}

/** What a form can begin with, while it asks nothing. */
function Starts({ begin }: { begin: (key: StartingFormKey) => void }) {
  return (
    <Box role="group" aria-label="Begins with" sx={{ mb: 1 }}>
      <Typography variant="body2" color="textSecondary">
        Begin with one of these, or add a question.
      </Typography>
      {STARTING_FORMS.map(({ key, name, sentence }) => (
        <Button
          key={key}
          size="small"
          variant="outlined"
          title={sentence}
          sx={{ mr: 0.75, mt: 0.75 }}
          onClick={() => {
            begin(key)
          }}
        >
          {name}
        </Button>
      ))}
    </Box>
  )
}

const pathsOf = (question: Question | undefined): readonly string[] =>
  question ? [...Object.keys(QUESTION_FIELDS[question.kind]), 'branch', ''] : []
