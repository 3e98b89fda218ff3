import DownIcon from '@mui/icons-material/ArrowDownwardOutlined'
import UpIcon from '@mui/icons-material/ArrowUpwardOutlined'
import { Box, Button, ButtonBase, IconButton, Stack, Typography } from '@mui/material'
import { REPORT_BLOCKS_MAX, type ReportBlock, type ReportContent } from '@flimbo/core/reports'
import type { ReactNode } from 'react'
import { Sheet } from '../ui/index.ts'
import { addBlock, blockTitle, moveBlock, NEW_QUESTION, questionBlock, wordsBlock } from './editReport.ts'

interface Props {
  readonly content: ReportContent
  readonly chosen: string | null
  readonly choose: (key: string | null) => void
  readonly edit: (content: ReportContent) => void
  readonly faults: ReadonlyMap<string, string>
  /** What changes the chosen part; it stands under that. */
  readonly children: ReactNode
}

/** The parts of a report in their order; one is chosen to be changed. */
export function BlockList({ content, chosen, choose, edit, faults, children }: Props) {
  const { blocks } = content
  const isFull = blocks.length >= REPORT_BLOCKS_MAX
  const add = (block: ReportBlock) => {
    edit(addBlock(content, block, chosen))
    choose(block.key)
  }
  return (
    <Sheet
      title="Parts"
      pad={false}
      aside={
        <Stack direction="row" spacing={1}>
          <Button
            size="small"
            disabled={isFull}
            onClick={() => {
              add(wordsBlock(content))
            }}
          >
            Add text
          </Button>
          <Button
            size="small"
            disabled={isFull}
            onClick={() => {
              add(questionBlock(content, NEW_QUESTION))
            }}
          >
            Add question
          </Button>
        </Stack>
      }
    >
      {blocks.length === 0 && (
        <Typography color="textSecondary" variant="body2" sx={{ p: 2 }}>
          Nothing yet. Add a question to the figures, or some words.
        </Typography>
      )}
      <Box component="ol" aria-label="Parts of the report" sx={{ listStyle: 'none', m: 0, p: 0 }}>
        {blocks.map((block, i) => {
          const title = blockTitle(block)
          const fault = [...faults].find(([path]) => path.startsWith(`blocks.${String(i)}.`))?.[1]
          return (
            <Box
              component="li"
              key={block.key}
              sx={{
                borderTop: i > 0 ? 1 : 0,
                borderColor: 'divider',
                ...(block.key === chosen ? { bgcolor: 'action.hover' } : {}),
              }}
            >
              <Stack direction="row" sx={{ alignItems: 'center' }}>
                <ButtonBase
                  aria-expanded={block.key === chosen}
                  sx={{
                    flex: 1,
                    minWidth: 0,
                    minHeight: 40,
                    px: 2,
                    justifyContent: 'flex-start',
                    font: 'inherit',
                  }}
                  onClick={() => {
                    choose(block.key === chosen ? null : block.key)
                  }}
                >
                  <Box sx={{ minWidth: 0, textAlign: 'left' }}>
                    <Typography
                      noWrap
                      variant="body2"
                      sx={block.kind === 'words' ? { fontStyle: 'italic' } : {}}
                    >
                      {title}
                    </Typography>
                    {fault !== undefined && (
                      <Typography variant="caption" color="error" role="alert">
                        {fault}
                      </Typography>
                    )}
                  </Box>
                </ButtonBase>
                <IconButton
                  size="small"
                  aria-label={`Move up: ${title}`}
                  disabled={i === 0}
                  onClick={() => {
                    edit(moveBlock(content, block.key, -1))
                  }}
                >
                  <UpIcon fontSize="small" />
                </IconButton>
                <IconButton
                  size="small"
                  aria-label={`Move down: ${title}`}
                  disabled={i === blocks.length - 1}
                  onClick={() => {
                    edit(moveBlock(content, block.key, 1))
                  }}
                >
                  <DownIcon fontSize="small" />
                </IconButton>
              </Stack>
              {block.key === chosen && <Box sx={{ px: 2, pb: 2, pt: 1 }}>{children}</Box>}
            </Box>
          )
        })}
      </Box>
    </Sheet>
  )
}
