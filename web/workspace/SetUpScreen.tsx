import { setUp, workspaceApi, type SetUp } from '@flimbo/core/workspace'
import { useState } from 'react'
import { useForm } from 'react-hook-form'
import { byContract, showFaults, useChange } from '../api/index.ts'
import { FormText } from '../ui/index.ts'
import { Entrance } from './Entrance.tsx'
import { OWN_ZONE } from '../session/index.ts'
import { FormZone } from './FormZone.tsx'

/** The first visit to an empty installation: whoever is here becomes its owner. */
export function SetUpScreen() {
  const { control, handleSubmit, setError } = useForm<SetUp>({
    defaultValues: { workspace: '', zone: OWN_ZONE, name: '', email: '', password: '' },
    resolver: byContract(setUp),
  })
  const [trouble, setTrouble] = useState<string | null>(null)
  const change = useChange(workspaceApi.setUp)
  const submit = handleSubmit(async (body) => {
    setTrouble(null)
    await change.mutateAsync({ body }).catch((error: unknown) => {
      setTrouble(showFaults(error, setError, ['workspace', 'zone', 'name', 'email', 'password']))
    })
  })
  return (
    <Entrance
      title="Set up Flimbo"
      text="There is no account yet. You will be the owner of this workspace."
      trouble={trouble}
      submit="Create the workspace"
      busy={change.isPending}
      onSubmit={() => {
        void submit()
      }}
    >
      <FormText
        control={control}
        name="workspace"
        label="Your organisation"
        autoFocus
        autoComplete="organization"
      />
      <FormZone
        control={control}
        name="zone"
        hint="Days begin and end in this time zone; each campaign can have its own."
      />
      <FormText control={control} name="name" label="Your name" autoComplete="name" />
      <FormText control={control} name="email" label="E-mail address" type="email" autoComplete="username" />
      <FormText
        control={control}
        name="password"
        label="Password"
        type="password"
        autoComplete="new-password"
        hint="At least 12 characters"
      />
    </Entrance>
  )
}
