import { Box, Button, Skeleton, Stack } from '@mui/material'
import type { Code } from '@flimbo/core/codes'
import type { StaticCode } from '@flimbo/core/staticCodes'
import type { Scene } from '@flimbo/core/symbol'
import type { ComponentType } from 'react'
import { Link } from 'react-router'
import { useCampaign } from '../campaigns/index.ts'
import { useStyles } from '../symbol/index.ts'
import { Empty, PrintWarning, Sheet, Trouble } from '../ui/index.ts'
import { ContactSheet } from './ContactSheet.tsx'
import { JobSheet } from './JobSheet.tsx'
import { Mover } from './Mover.tsx'
import { Measurements } from './Measurements.tsx'
import { Proof } from './Proof.tsx'
import { ProofColumn, WORKBENCH } from './ProofColumn.tsx'
import { useContacts, type Contacts } from './useContacts.ts'
import { useDraft } from './useDraft.ts'
import { printableOf, usePiece } from './usePiece.ts'

/** The proof and the job sheet of a static code; null is one that is being made. */
export interface StaticBenchProps {
  readonly code: StaticCode | null
  readonly contacts: Contacts
}

/** Where a plan becomes paper: the campaign's pieces, the proof of one of them, and its job sheet. */
export function PrintScreen({ StaticBench }: { StaticBench: ComponentType<StaticBenchProps> }) {
  const campaign = useCampaign()
  const contacts = useContacts(campaign.id)
  const { error, retry, total } = contacts
  if (error) return <Trouble error={error} retry={retry} />
  if (total === 0 && !contacts.isNarrowed && !contacts.isNew)
    return (
      <Box sx={{ p: 2 }}>
        <Sheet>
          <Empty
            title="Nothing to print yet"
            text="Symbols come with the pieces of the plan."
            action={
              <Stack direction="row" spacing={1}>
                <Button variant="contained" component={Link} to="../plan?new">
                  New piece
                </Button>
                <Button variant="outlined" component={Link} to="?static=new">
                  New static code
                </Button>
              </Stack>
            }
          />
        </Sheet>
      </Box>
    )
  return (
    <Box sx={WORKBENCH}>
      <ContactSheet contacts={contacts} />
      <Open contacts={contacts} StaticBench={StaticBench} />
    </Box>
  )
}

/** The bench of what is open. */
function Open({
  contacts,
  StaticBench,
}: {
  contacts: Contacts
  StaticBench: ComponentType<StaticBenchProps>
}) {
  const { code, fixed, isNew } = contacts
  const { isThere } = useStyles()
  if (!isThere || (!code && !fixed && !isNew))
    return <Skeleton variant="rectangular" sx={{ gridColumn: '2 / 4', height: '100%' }} />
  // Another one has a draft of its own.
  if (fixed || isNew) return <StaticBench key={fixed?.id ?? 'new'} code={fixed ?? null} contacts={contacts} />
  return code && <Bench key={code.id} code={code} contacts={contacts} />
}

const sidesOf = ({ width, height, unitMm }: Scene) => ({ width: width * unitMm, height: height * unitMm })

/** The proof of a piece and its job sheet. */
function Bench({ code, contacts }: { code: Code; contacts: Contacts }) {
  const draft = useDraft(code)
  const piece = usePiece(printableOf(code), draft.draft)
  return (
    <>
      <ProofColumn>
        <PrintWarning origin={code.origin} />
        <Proof
          name={code.name}
          scene={piece.whole}
          mm={draft.draft.sizeMm}
          mover={
            draft.draft.placement &&
            piece.whole !== piece.scene && (
              <Mover
                placement={draft.draft.placement}
                piece={sidesOf(piece.scene)}
                picture={sidesOf(piece.whole)}
                move={(placement) => {
                  draft.change({ placement }, 'placement')
                }}
              />
            )
          }
        />
        <Measurements
          measured={piece.measured}
          change={({ mm, ...set }, what) => {
            draft.change({ ...set, ...(mm === undefined ? {} : { sizeMm: mm }) }, what)
          }}
        />
      </ProofColumn>
      <JobSheet key={code.id} code={code} draft={draft} piece={piece} contacts={contacts} />
    </>
  )
}
