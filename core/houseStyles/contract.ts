import { z } from 'zod'
import { endpoint, idParams, requiredLine } from '../api/index.ts'
import { look } from '../symbol/index.ts'

/** A workspace has no more house styles than people can tell apart. */
export const HOUSE_STYLES_MAX = 200

export const HOUSE_STYLE_NAME_MAX = 80

const name = requiredLine('a name', HOUSE_STYLE_NAME_MAX)

export const houseStyle = z.object({
  id: z.int(),
  /** Whose it is; null for the whole workspace. */
  clientId: z.int().nullable(),
  name: z.string(),
  look,
  version: z.int(),
  createdAt: z.int(),
  /** Pieces that are printed in it. */
  pieces: z.int(),
})
export type HouseStyle = z.infer<typeof houseStyle>

/** Something that is printed in a house style. */
export const styleUse = z.object({
  kind: z.enum(['code', 'static']),
  id: z.int(),
  name: z.string(),
  campaignName: z.string(),
  isReleased: z.boolean(),
})
export type StyleUse = z.infer<typeof styleUse>

export const newHouseStyle = z.strictObject({ name, look, clientId: z.int().nullable().default(null) })
export type NewHouseStyle = z.input<typeof newHouseStyle>

/** Uploaded files that a look needs stand at these places of what is sent. */
const LOOK_FILES = ['body.look.logo.file', 'body.look.ground.file'] as const

export const houseStylesApi = {
  list: endpoint({
    method: 'GET',
    path: '/house-styles',
    room: 'houseStyles',
    access: { right: 'view' },
    summary: 'The house styles of the workspace, by name',
    answer: z.object({ rows: z.array(houseStyle) }),
  }),
  uses: endpoint({
    method: 'GET',
    path: '/house-styles/:id/uses',
    room: 'houseStyles',
    access: { right: 'view', things: { houseStyle: 'params.id' } },
    summary: 'Which pieces and static codes are printed in a house style, and which of them are released',
    params: idParams,
    answer: z.object({
      rows: z.array(styleUse),
      total: z.int(),
      /** How many of all of them are released: what is printed of those stays as it was. */
      released: z.int(),
    }),
  }),
  create: endpoint({
    method: 'POST',
    path: '/house-styles',
    room: 'houseStyles',
    access: { right: 'edit', things: { client: 'body.clientId', file: LOOK_FILES } },
    status: 201,
    summary: 'Save a look as a house style',
    body: newHouseStyle,
    answer: houseStyle,
  }),
  change: endpoint({
    method: 'PATCH',
    path: '/house-styles/:id',
    room: 'houseStyles',
    access: {
      right: 'edit',
      things: { houseStyle: 'params.id', client: 'body.clientId', file: LOOK_FILES },
    },
    summary: 'Change a house style, and with it every piece that uses it and is not released',
    params: idParams,
    body: z
      .strictObject({ version: z.int() })
      .extend(newHouseStyle.omit({ clientId: true }).partial().shape)
      .extend({ clientId: z.int().nullable().optional() }),
    answer: houseStyle,
  }),
  remove: endpoint({
    method: 'DELETE',
    path: '/house-styles/:id',
    room: 'houseStyles',
    access: { right: 'edit', things: { houseStyle: 'params.id' } },
    summary: 'Delete a house style that no piece uses',
    params: idParams,
  }),
}
