import { Box, Button, Link, Stack, Typography } from '@mui/material'
import { staticCodesApi, type StaticCode } from '@flimbo/core/staticCodes'
import { dayIn } from '@flimbo/core/time'
import { useState } from 'react'
import { Link as RouterLink, useSearchParams } from 'react-router'
import { sentenceOf, useChange } from '../api/index.ts'
import { useCampaign } from '../campaigns/index.ts'
import {
  JobFrame,
  MadePages,
  NumberField,
  Part,
  PrintingRows,
  Row,
  subjectOf,
  TextCell,
  type JobPage,
  type StaticBenchProps,
  type usePiece,
} from '../print/index.ts'
import { ContentForm } from './ContentForm.tsx'
import { emptyContent, FORMS } from './fields.ts'
import type { StaticDraftOf } from './useStaticDraft.ts'

interface Props {
  readonly code: StaticCode | null
  readonly given: StaticDraftOf
  readonly symbol: ReturnType<typeof usePiece>
  readonly contacts: StaticBenchProps['contacts']
}

/** What a static code carries and how it is printed, line by line; and its files. */
export function StaticSheet({ code, given, symbol, contacts }: Props) {
  const [page, setPage] = useState<JobPage>('look')
  return (
    <JobFrame
      page={page}
      setPage={setPage}
      first="Content"
      isStored={code !== null}
      foot={(given.isChanged || !code) && <StaticSaveBar code={code} given={given} />}
    >
      {page === 'look' && (
        <>
          <ContentRows code={code} given={given} symbol={symbol} />
          {code && <Remove code={code} />}
        </>
      )}
      {code && (
        <MadePages
          page={page}
          subject={subjectOf('static', code)}
          contacts={contacts}
          isChanged={given.isChanged}
        />
      )}
    </JobFrame>
  )
}

type Given = Pick<Props, 'code' | 'given' | 'symbol'>

function ContentRows({ code, given, symbol }: Given) {
  const campaign = useCampaign()
  const { draft, faults, costs, set } = given
  const form = FORMS[draft.content.kind]
  return (
    <>
      <Part title="Static code">
        <Row name="Name">
          <TextCell
            label="Name"
            value={draft.name}
            max={200}
            set={(name) => {
              set({ name })
            }}
          />
        </Row>
        <ContentForm
          content={draft.content}
          faults={draft.name === '' && code === null ? [] : faults}
          costs={costs}
          setKind={(kind) => {
            set({ content: emptyContent(kind, dayIn(campaign.zone, Date.now()), campaign.zone) })
          }}
          set={(content) => {
            set({ content })
          }}
        />
        <Typography variant="body2" color={costs.side === null ? 'error' : 'textSecondary'} sx={{ py: 1 }}>
          {costs.side === null
            ? 'This is more than the largest symbol holds at this level. Leave something out, or lower the level.'
            : `Carries ${String(costs.bytes)} bytes in ${String(costs.side)} × ${String(costs.side)} modules of ${symbol.scene.unitMm.toFixed(2)} mm.`}
        </Typography>
        {form.dynamic !== '' && (
          <Typography variant="body2" color="textSecondary" sx={{ pb: 1 }}>
            {form.dynamic}{' '}
            <Link component={RouterLink} to="../plan?new" underline="always">
              New piece in the plan
            </Link>
          </Typography>
        )}
      </Part>
      <Part title="Print">
        <PrintingRows printing={draft} free={symbol.free} set={set} />
        <Row name="Place">
          <TextCell
            label="Place"
            value={draft.place}
            max={200}
            set={(place) => {
              set({ place })
            }}
          />
        </Row>
        <Row name="Print run">
          <NumberField
            label="Print run"
            value={draft.printRun}
            min={0}
            max={1_000_000_000}
            unit="copies"
            width={90}
            isOptional
            set={(printRun) => {
              set({ printRun: printRun === null ? null : Math.round(printRun) })
            }}
          />
        </Row>
        <Row name="Note">
          <TextCell
            label="Note"
            value={draft.note}
            max={1000}
            set={(note) => {
              set({ note })
            }}
          />
        </Row>
      </Part>
    </>
  )
}

/** Saves what is typed, or says why it cannot be. */
function StaticSaveBar({ code, given }: Pick<Props, 'code' | 'given'>) {
  const { draft, faults } = given
  return (
    <Stack
      role="region"
      aria-label="Unsaved changes"
      sx={{ borderTop: 1, borderColor: 'primary.main', px: 2, py: 1, gap: 0.75 }}
    >
      {given.fault !== null && (
        <Typography variant="body2" color="error" role="alert">
          {given.fault}
        </Typography>
      )}
      {faults.length > 0 && draft.name !== '' && (
        <Typography variant="body2" color="error">
          {faults[0]?.sentence}
        </Typography>
      )}
      {code?.print.release && (
        <Typography variant="body2" color="warning">
          It was released: what is printed stays as it was, and is shown as changed since.
        </Typography>
      )}
      <Stack direction="row" spacing={1}>
        <Button
          variant="contained"
          disabled={given.isSaving || !given.isWhole || draft.name.trim() === ''}
          onClick={() => {
            void given.save()
          }}
        >
          Save
        </Button>
        <Button color="inherit" disabled={given.isSaving || !given.isChanged} onClick={given.discard}>
          Discard
        </Button>
      </Stack>
    </Stack>
  )
}

/** Deletes a static code; one that was released is kept. */
function Remove({ code }: { code: StaticCode }) {
  const [, setAddress] = useSearchParams()
  const remove = useChange(staticCodesApi.remove)
  if (code.print.release) return null
  return (
    <Box sx={{ pt: 1 }}>
      <Button
        color="error"
        disabled={remove.isPending}
        onClick={() => {
          remove.mutate(
            { params: { id: code.id } },
            {
              onSuccess: () => {
                setAddress({}, { replace: true })
              },
            },
          )
        }}
      >
        Delete
      </Button>
      {remove.isError && (
        <Typography variant="body2" color="error" role="alert">
          {sentenceOf(remove.error, 'It could not be deleted.')}
        </Typography>
      )}
    </Box>
  )
}
