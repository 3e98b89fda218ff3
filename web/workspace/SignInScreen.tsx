import { signIn, workspaceApi } from '@flimbo/core/workspace'
import { useState } from 'react'
import { useForm } from 'react-hook-form'
import type { z } from 'zod'
import { byContract, showFaults, useChange } from '../api/index.ts'
import { FormText } from '../ui/index.ts'
import { Entrance } from './Entrance.tsx'

type Values = z.input<typeof signIn>

/** Signing in with an address and a password. */
export function SignInScreen() {
  const { control, handleSubmit, setError } = useForm<Values>({
    defaultValues: { email: '', password: '' },
    resolver: byContract(signIn),
  })
  const [trouble, setTrouble] = useState<string | null>(null)
  const change = useChange(workspaceApi.signIn)
  const submit = handleSubmit(async (body) => {
    setTrouble(null)
    await change.mutateAsync({ body }).catch((error: unknown) => {
      setTrouble(showFaults(error, setError, ['email', 'password']))
    })
  })
  return (
    <Entrance
      title="Sign in"
      text="Your codes, where they lead, and what came of them."
      trouble={trouble}
      submit="Sign in"
      busy={change.isPending}
      onSubmit={() => {
        void submit()
      }}
    >
      <FormText
        control={control}
        name="email"
        label="E-mail address"
        type="email"
        autoComplete="username"
        autoFocus
      />
      <FormText
        control={control}
        name="password"
        label="Password"
        type="password"
        autoComplete="current-password"
      />
    </Entrance>
  )
}
