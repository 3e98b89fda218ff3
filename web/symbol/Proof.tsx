import { Box, Stack, Typography } from '@mui/material'
import type { Code } from '@flimbo/core/codes'
import { number } from '@flimbo/core/formats'
import { useState } from 'react'
import { Sheet } from '../ui/index.ts'
import { Ruler } from './Ruler.tsx'
import { SymbolFacts } from './SymbolFacts.tsx'
import { sideOf, SymbolFiles, type Settings } from './SymbolFiles.tsx'
import { SymbolPicture } from './SymbolPicture.tsx'

/** A symbol beside a ruler, with what is known of it and its files. */
export function Proof({ code }: { code: Code }) {
  const [settings, setSettings] = useState<Settings>({ level: code.level, mm: String(code.sizeMm), dpi: 300 })
  const { level } = settings
  const mm = sideOf(settings) ?? code.sizeMm

  return (
    <Box sx={{ display: 'grid', gridTemplateColumns: 'minmax(0, 1fr) 420px', gap: 2, alignItems: 'start' }}>
      <Sheet
        title="Proof"
        aside={
          <Typography variant="body2" color="textSecondary">
            {number(mm)} × {number(mm)} mm, quiet zone included
          </Typography>
        }
        pad={false}
      >
        <Ruler mm={mm}>
          <SymbolPicture
            origin={code.origin}
            slug={code.slug}
            level={level}
            size="100%"
            label={`Symbol of ${code.name} at ${String(mm)} mm`}
          />
        </Ruler>
      </Sheet>
      <Stack spacing={2}>
        <Sheet title="The symbol">
          <SymbolFacts code={code} level={level} mm={mm} />
        </Sheet>
        <Sheet title="Files">
          <SymbolFiles code={code} settings={settings} set={setSettings} />
        </Sheet>
      </Stack>
    </Box>
  )
}
