import ImportExportIcon from '@mui/icons-material/ImportExportOutlined'
import {
  Dialog,
  DialogContent,
  DialogTitle,
  Divider,
  ListItemText,
  Menu,
  MenuItem,
  Snackbar,
  Stack,
  TextField,
} from '@mui/material'
import { checksApi } from '@flimbo/core/checks'
import { FILE_NAME_FIELDS, FILE_NAME_PATTERN_USUAL, fileNameFault, planApi } from '@flimbo/core/plan'
import { printApi } from '@flimbo/core/print'
import type { FileFormat } from '@flimbo/core/symbol'
import { useState } from 'react'
import { useNavigate } from 'react-router'
import type { InputOf } from '@flimbo/core/api'
import { useChange } from '../api/index.ts'
import { useFile } from '../jobs/index.ts'
import { PrintWarning, DialogButtons } from '../ui/index.ts'
import { useSession } from '../session/index.ts'
import type { Listing } from '../codes/index.ts'
import { ToolButton } from './ToolButton.tsx'

/** Plans in and out as files, and everything else that is done to the whole plan. */
export function FilesMenu({ filter, addSeries }: { filter: Listing['filter']; addSeries: () => void }) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null)
  const [naming, setNaming] = useState(false)
  const navigate = useNavigate()
  const check = useChange(checksApi.begin)
  const file = useFile(planApi.makeFile)
  const print = useFile(printApi.order)
  const close = () => {
    setAnchor(null)
  }
  const order = (body: InputOf<typeof planApi.makeFile>['body']) => {
    close()
    void file.order({ body })
  }
  return (
    <>
      <ToolButton
        label="Files and more"
        icon={<ImportExportIcon fontSize="small" />}
        popup="menu"
        open={setAnchor}
      />
      <Menu anchorEl={anchor} open={anchor !== null} onClose={close}>
        <MenuItem
          onClick={() => {
            void navigate('../import')
          }}
        >
          <ListItemText primary="Import a plan" secondary="CSV or XLSX; shows first what it would do" />
        </MenuItem>
        <MenuItem
          onClick={() => {
            close()
            addSeries()
          }}
        >
          <ListItemText primary="New numbered series" secondary="Table card 001 to 120" />
        </MenuItem>
        <MenuItem
          onClick={() => {
            void navigate('../print?static=new')
          }}
        >
          <ListItemText
            primary="New static code"
            secondary="Carries its content itself: Wi-Fi, contact, event"
          />
        </MenuItem>
        <Divider />
        <MenuItem
          onClick={() => {
            order({ what: 'plan.csv', filter })
          }}
        >
          <ListItemText primary="The plan as CSV" secondary="What is filtered, in this order of columns" />
        </MenuItem>
        <MenuItem
          onClick={() => {
            order({ what: 'plan.xlsx', filter })
          }}
        >
          <ListItemText primary="The plan as XLSX" />
        </MenuItem>
        <MenuItem
          onClick={() => {
            order({ what: 'links.csv', filter })
          }}
        >
          <ListItemText primary="All short links as CSV" secondary="Old ones of renamed pieces too" />
        </MenuItem>
        <MenuItem
          onClick={() => {
            close()
            setNaming(true)
          }}
        >
          <ListItemText primary="All symbols as a ZIP file" secondary="Named by a pattern" />
        </MenuItem>
        <Divider />
        <MenuItem
          onClick={() => {
            close()
            check.mutate({ body: { campaignId: Number(filter.campaignId) } })
          }}
        >
          <ListItemText primary="Check all destinations" secondary="Whether each arrives, with its tags" />
        </MenuItem>
      </Menu>
      <SymbolFiles
        open={naming}
        close={() => {
          setNaming(false)
        }}
        order={(body) => {
          void print.order({ body })
        }}
        filter={filter}
      />
      <Snackbar open={file.fault !== null} message={file.fault} />
      <Snackbar open={print.fault !== null} message={print.fault} />
    </>
  )
}

function SymbolFiles({
  open,
  close,
  order,
  filter,
}: {
  open: boolean
  close: () => void
  order: (body: InputOf<typeof printApi.order>['body']) => void
  filter: Listing['filter']
}) {
  const [pattern, setPattern] = useState(FILE_NAME_PATTERN_USUAL)
  const [format, setFormat] = useState<FileFormat>('svg')
  const fault = fileNameFault(pattern)
  const { door } = useSession()
  return (
    <Dialog open={open} onClose={close} fullWidth maxWidth="sm" aria-labelledby="symbols-title">
      <DialogTitle id="symbols-title">All symbols as a ZIP file</DialogTitle>
      <DialogContent>
        <Stack spacing={2} sx={{ pt: 1 }}>
          <PrintWarning origin={door} />
          <TextField
            size="small"
            label="Names of the files"
            value={pattern}
            onChange={(event) => {
              setPattern(event.target.value)
            }}
            error={fault !== null}
            helperText={
              fault ??
              `Of ${FILE_NAME_FIELDS.map((field) => `{${field}}`).join(' ')}; a name that comes twice is numbered.`
            }
          />
          <TextField
            select
            size="small"
            label="Format"
            value={format}
            onChange={(event) => {
              setFormat(event.target.value as FileFormat)
            }}
          >
            <MenuItem value="svg">SVG, at each piece’s printed size</MenuItem>
            <MenuItem value="pdf">PDF, in cyan, magenta, yellow and black</MenuItem>
            <MenuItem value="eps">EPS, in cyan, magenta, yellow and black</MenuItem>
            <MenuItem value="png">PNG at 300 dpi</MenuItem>
          </TextField>
        </Stack>
      </DialogContent>
      <DialogButtons
        close={close}
        label="Download"
        act={() => {
          order({ filter, pattern, finish: { format } })
          close()
        }}
        isDisabled={fault !== null}
      />
    </Dialog>
  )
}
