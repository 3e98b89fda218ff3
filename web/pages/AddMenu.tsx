import AddIcon from '@mui/icons-material/Add'
import { Button, Menu, MenuItem } from '@mui/material'
import { useState } from 'react'

interface Props<K extends string> {
  readonly label: string
  readonly kinds: readonly K[]
  readonly names: Readonly<Record<K, string>>
  readonly isFull: boolean
  readonly add: (kind: K) => void
}

/** Adds something of a kind that is chosen from a menu. */
export function AddMenu<K extends string>({ label, kinds, names, isFull, add }: Props<K>) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null)
  return (
    <>
      <Button
        startIcon={<AddIcon />}
        disabled={isFull}
        aria-haspopup="menu"
        sx={{ justifyContent: 'flex-start', px: 1.5, py: 1 }}
        onClick={({ currentTarget }) => {
          setAnchor(currentTarget)
        }}
      >
        {label}
      </Button>
      <Menu
        open={anchor !== null}
        anchorEl={anchor}
        onClose={() => {
          setAnchor(null)
        }}
      >
        {kinds.map((kind) => (
          <MenuItem
            key={kind}
            dense
            onClick={() => {
              setAnchor(null)
              add(kind)
            }}
          >
            {names[kind]}
          </MenuItem>
        ))}
      </Menu>
    </>
  )
}
