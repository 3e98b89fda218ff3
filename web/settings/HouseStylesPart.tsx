import {
  Box,
  Button,
  MenuItem,
  Skeleton,
  Stack,
  Table,
  TableBody,
  TableCell,
  TableHead,
  TableRow,
  TextField,
  Typography,
} from '@mui/material'
import { quantity } from '@flimbo/core/formats'
import { houseStylesApi, type HouseStyle } from '@flimbo/core/houseStyles'
import { useState } from 'react'
import { sentenceOf, useAnswer, useChange } from '../api/index.ts'
import { useSession } from '../session/index.ts'
import { SymbolPicture } from '../symbol/index.ts'
import { Fault, Sheet, Trouble } from '../ui/index.ts'

/** A link to draw looks with: it leads nowhere. */
const SAMPLE = 'HTTPS://GO.EXAMPLE/SAMPLE'
const WORKSPACE = 'workspace'

/** The house styles of the workspace: what they are called, whose they are, and how many pieces are printed in each. */
export function HouseStylesPart() {
  const styles = useAnswer(houseStylesApi.list, {})
  const change = useChange(houseStylesApi.change)
  const remove = useChange(houseStylesApi.remove)
  const fault = change.error ?? remove.error
  if (styles.isError)
    return (
      <Trouble
        error={styles.error}
        retry={() => {
          void styles.refetch()
        }}
      />
    )
  if (!styles.data) return <Skeleton variant="rounded" height={240} />
  return (
    <Sheet
      title="House styles"
      aside={
        <Typography variant="body2" color="textSecondary">
          Looks are designed and saved on Print.
        </Typography>
      }
      pad={false}
    >
      {fault && (
        <Box sx={{ p: 2 }}>
          <Fault sentence={sentenceOf(fault, 'That could not be done. Nothing was changed.')} />
        </Box>
      )}
      <Table size="small" aria-label="House styles">
        <TableHead>
          <TableRow>
            <TableCell sx={{ width: 72 }} aria-label="Look" />
            <TableCell>Name</TableCell>
            <TableCell sx={{ width: 240 }}>Whose</TableCell>
            <TableCell sx={{ width: 120 }}>Used by</TableCell>
            <TableCell sx={{ width: 180 }} aria-label="Actions" />
          </TableRow>
        </TableHead>
        <TableBody>
          {styles.data.rows.map((style) => (
            <StyleRow
              key={`${String(style.id)} ${String(style.version)}`}
              style={style}
              save={(set) => {
                change.mutate({ params: { id: style.id }, body: { version: style.version, ...set } })
              }}
              remove={() => {
                remove.mutate({ params: { id: style.id } })
              }}
            />
          ))}
        </TableBody>
      </Table>
    </Sheet>
  )
}

function StyleRow({
  style,
  save,
  remove,
}: {
  style: HouseStyle
  save: (set: { name?: string; clientId?: number | null }) => void
  remove: () => void
}) {
  const { clients } = useSession()
  const [name, setName] = useState(style.name)
  const isRenamed = name.trim() !== style.name
  return (
    <TableRow>
      <TableCell>
        <SymbolPicture text={SAMPLE} level="M" look={style.look} size={48} label={`Look of ${style.name}`} />
      </TableCell>
      <TableCell>
        <TextField
          size="small"
          fullWidth
          value={name}
          onChange={(event) => {
            setName(event.target.value)
          }}
          slotProps={{ htmlInput: { 'aria-label': `Name of ${style.name}`, maxLength: 80 } }}
        />
      </TableCell>
      <TableCell>
        <TextField
          select
          size="small"
          fullWidth
          value={style.clientId === null ? WORKSPACE : String(style.clientId)}
          onChange={(event) => {
            const { value } = event.target
            save({ clientId: value === WORKSPACE ? null : Number(value) })
          }}
          slotProps={{ htmlInput: { 'aria-label': `Whose ${style.name} is` } }}
        >
          <MenuItem value={WORKSPACE}>The whole workspace</MenuItem>
          {clients.map(({ id, name: client }) => (
            <MenuItem key={id} value={String(id)}>
              {client}
            </MenuItem>
          ))}
        </TextField>
      </TableCell>
      <TableCell>{quantity(style.pieces, 'piece')}</TableCell>
      <TableCell align="right">
        <Stack direction="row" sx={{ gap: 1, justifyContent: 'flex-end' }}>
          {isRenamed && (
            <Button
              size="small"
              variant="contained"
              disabled={name.trim() === ''}
              onClick={() => {
                save({ name })
              }}
            >
              Save
            </Button>
          )}
          <Button
            size="small"
            color="error"
            disabled={style.pieces > 0}
            onClick={remove}
            aria-label={`Delete ${style.name}`}
          >
            Delete
          </Button>
        </Stack>
      </TableCell>
    </TableRow>
  )
}
