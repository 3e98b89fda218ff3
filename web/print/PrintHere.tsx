import { Box, Button, GlobalStyles, Stack, Typography } from '@mui/material'
import { codesApi } from '@flimbo/core/codes'
import { staticCodesApi } from '@flimbo/core/staticCodes'
import { useParams } from 'react-router'
import { useAnswer } from '../api/index.ts'
import { useStyles } from '../symbol/index.ts'
import { SceneDrawing } from '../symbol/index.ts'
import { Trouble } from '../ui/index.ts'
import { draftOf } from './draft.ts'
import { printableOf, usePieceScene, type Printable, type Printing } from './usePiece.ts'

/** One piece alone on a page that prints at its true size. */
export function PrintHere() {
  const { kind, id } = useParams()
  const { isThere } = useStyles()
  if (!isThere) return null
  return kind === 'static' ? <StaticPaper id={Number(id)} /> : <PiecePaper id={Number(id)} />
}

function PiecePaper({ id }: { id: number }) {
  const { data, error } = useAnswer(codesApi.get, { params: { id } })
  const { lookOf } = useStyles()
  if (error) return <Trouble error={error} />
  return data ? <Paper printable={printableOf(data)} printing={draftOf(data, lookOf)} /> : null
}

function StaticPaper({ id }: { id: number }) {
  const { data, error } = useAnswer(staticCodesApi.get, { params: { id } })
  const { lookOf } = useStyles()
  if (error) return <Trouble error={error} />
  if (!data) return null
  const { name, text, styleId } = data
  return <Paper printable={{ name, text, link: '' }} printing={{ ...data, look: lookOf(styleId) }} />
}

function Paper({ printable, printing }: { printable: Printable; printing: Printing }) {
  const { whole: scene } = usePieceScene(printable, printing)
  const [width, height] = [scene.width, scene.height].map((units) => `${String(units * scene.unitMm)}mm`)
  return (
    <Box sx={{ bgcolor: '#fff', color: '#000', minHeight: '100vh', p: '10mm' }}>
      <GlobalStyles styles={{ '@media print': { '.not-printed': { display: 'none !important' } } }} />
      <Stack className="not-printed" direction="row" sx={{ gap: 2, alignItems: 'center', mb: '8mm' }}>
        <Button
          variant="contained"
          onClick={() => {
            window.print()
          }}
        >
          Print
        </Button>
        <Typography sx={{ maxWidth: 640 }}>
          In the print dialog choose a scale of 100 %, not “fit to page”. Then hold a ruler to the line below:
          it is 50 mm long on paper, or else the size is wrong.
        </Typography>
      </Stack>
      <SceneDrawing
        scene={scene}
        label={`Symbol of ${printable.name}`}
        width={width ?? ''}
        height={height ?? ''}
      />
      <Box sx={{ mt: '8mm', width: '50mm', borderTop: '0.3mm solid #000', pt: '1mm', fontSize: '3mm' }}>
        50 mm
      </Box>
      <Typography sx={{ mt: '4mm', fontSize: '3.5mm' }}>
        {[printable.name, printable.link].filter(Boolean).join(', ')}
      </Typography>
    </Box>
  )
}
