import { IconButton, Tooltip, Typography } from '@mui/material'
import RedoIcon from '@mui/icons-material/Redo'
import UndoIcon from '@mui/icons-material/Undo'
import type { Code } from '@flimbo/core/codes'
import { densityGain, gainPhrase } from '@flimbo/core/symbol'
import { useMemo, useState } from 'react'
import { useStyles } from '../symbol/index.ts'
import { Copyable } from '../ui/index.ts'
import { JobFrame, type JobPage } from './JobFrame.tsx'
import { LookParts } from './LookParts.tsx'
import { MadePages } from './MadePages.tsx'
import { PrintingRows } from './PrintingRows.tsx'
import { Part, Row } from './rows.tsx'
import { PlacementRows } from './PlacementRows.tsx'
import { SaveBar } from './SaveBar.tsx'
import { subjectOf } from './subject.ts'
import type { Contacts } from './useContacts.ts'
import type { DraftOf } from './useDraft.ts'
import type { PieceOf } from './usePiece.ts'

interface Props {
  readonly code: Code
  readonly draft: DraftOf
  readonly piece: PieceOf
  readonly contacts: Contacts
}

/** Everything that is said of how a piece is printed, line by line, and what is made of it. */
export function JobSheet({ code, draft: given, piece, contacts }: Props) {
  const { draft, change, undo, redo, canUndo, canRedo } = given
  const [page, setPage] = useState<JobPage>('look')
  return (
    <JobFrame
      page={page}
      setPage={setPage}
      first="Look"
      isStored
      tools={
        <>
          <Tooltip title="Undo (Ctrl Z)">
            <span>
              <IconButton size="small" aria-label="Undo" disabled={!canUndo} onClick={undo}>
                <UndoIcon fontSize="small" />
              </IconButton>
            </span>
          </Tooltip>
          <Tooltip title="Redo (Ctrl Y)">
            <span>
              <IconButton size="small" aria-label="Redo" disabled={!canRedo} onClick={redo}>
                <RedoIcon fontSize="small" />
              </IconButton>
            </span>
          </Tooltip>
        </>
      }
      foot={<SaveBar code={code} draft={given} />}
    >
      {page === 'look' && (
        <>
          <PieceRows code={code} draft={given} piece={piece} />
          <PlacementRows
            placement={draft.placement}
            set={(placement) => {
              change({ placement }, 'placement')
            }}
          />
          <LookParts
            look={draft.look}
            set={(look, what) => {
              change({ look: { ...draft.look, ...look } }, what)
            }}
          />
        </>
      )}
      <MadePages
        page={page}
        subject={subjectOf('code', code)}
        contacts={contacts}
        isChanged={given.isChanged}
      />
    </JobFrame>
  )
}

function PieceRows({
  code,
  draft: { draft, change },
  piece,
}: {
  code: Code
  draft: DraftOf
  piece: PieceOf
}) {
  const { lookOf } = useStyles()
  const { symbol, scene, free, text } = piece
  const modes = [...new Set(symbol.segments.map(({ mode }) => mode))].join(' and ')
  // The long address is worked out anew only where it, or the level, is another one.
  const gain = useMemo(
    () => gainPhrase(densityGain(text, code.finalAddress, free)),
    [text, code.finalAddress, free],
  )
  return (
    <Part title="Piece">
      <PrintingRows
        printing={draft}
        free={free}
        set={(more, what) => {
          // Another house style brings its look.
          change(more.styleId === undefined ? more : { ...more, look: lookOf(more.styleId) }, what)
        }}
      />
      <Row name="Symbol">
        <Typography variant="body2">
          version {symbol.version}, {modes}, modules of {scene.unitMm.toFixed(2)} mm
        </Typography>
      </Row>
      <Row name="Gain">
        <Typography variant="body2">{gain}</Typography>
      </Row>
      <Row name="Carries">
        <Copyable value={piece.text} label="what the symbol carries" />
      </Row>
    </Part>
  )
}
