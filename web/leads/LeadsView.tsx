import { ToggleButton, ToggleButtonGroup } from '@mui/material'
import { useNavigate } from 'react-router'

/** Chooses how leads are looked at. */
export function LeadsView({ shown }: { shown: 'people' | 'numbers' }) {
  const navigate = useNavigate()
  return (
    <ToggleButtonGroup
      exclusive
      size="small"
      aria-label="Shown as"
      value={shown}
      onChange={(_event, next: string | null) => {
        if (next !== null) void navigate(next === 'numbers' ? '?view=numbers' : '?')
      }}
    >
      <ToggleButton value="people">People</ToggleButton>
      <ToggleButton value="numbers">Numbers</ToggleButton>
    </ToggleButtonGroup>
  )
}
