import { houseStylesApi, type HouseStyle } from '@flimbo/core/houseStyles'
import { PLAIN_LOOK, type Look } from '@flimbo/core/symbol'
import { useMemo } from 'react'
import { useAnswer } from '../api/index.ts'

const NONE: readonly HouseStyle[] = []

/** The house styles of the workspace, and the look of each by its number; the plain look for none. */
export function useStyles() {
  const answer = useAnswer(houseStylesApi.list, {})
  const styles = answer.data?.rows ?? NONE
  return useMemo(() => {
    const byId = new Map(styles.map((style) => [style.id, style]))
    return {
      styles,
      isThere: answer.data !== undefined,
      byId,
      lookOf: (id: number | null): Look => (id === null ? PLAIN_LOOK : (byId.get(id)?.look ?? PLAIN_LOOK)),
    }
  }, [styles, answer.data])
}

/** The house styles a client's pieces may be printed in: the workspace's and its own; and the one they are in, whosever it is. */
export function stylesFor(
  styles: readonly HouseStyle[],
  clientId: number,
  inUse: number | null = null,
): readonly HouseStyle[] {
  return styles.filter(
    (style) => style.clientId === null || style.clientId === clientId || style.id === inUse,
  )
}
