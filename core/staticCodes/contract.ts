import { z } from 'zod'
import { endpoint, idParams, idQuery, line, pageOf, pageQuery, requiredLine } from '../api/index.ts'
import { level, pieceFields, SIZE_MM } from '../codes/index.ts'
import { content, contentFaults, readContent, writeContent } from '../contents/index.ts'
import { printState, smallestVersion } from '../symbol/index.ts'

/** A campaign has no more static codes than people can tell apart. */
export const STATIC_CODES_MAX = 2000

const fields = {
  name: requiredLine('a name', 200),
  content,
  level,
  sizeMm: pieceFields.sizeMm,
  viewingM: pieceFields.viewingM,
  place: line('the place', 200),
  printRun: pieceFields.printRun,
  reference: line('the reference', 100),
  note: line('the note', 1000),
  styleId: pieceFields.styleId,
} as const

type Whole = z.output<z.ZodObject<Pick<typeof fields, 'content' | 'level'>>>

/** Says what is wrong with what a code carries: by its standard, and by what a symbol holds. */
function wholeContent({ content: carried, level: wanted }: Whole, context: z.core.$RefinementCtx): void {
  for (const { field, sentence } of contentFaults(carried))
    context.addIssue({ code: 'custom', path: ['content', field], message: sentence })
  const text = writeContent(carried)
  if (smallestVersion(text, wanted) === null)
    context.addIssue({
      code: 'custom',
      path: ['content'],
      message:
        'This is more than the largest symbol holds at this level. Leave something out, or lower the level.',
    })
  // What is encoded is read back before it is offered.
  if (readContent(text).kind !== carried.kind && carried.kind !== 'text')
    context.addIssue({
      code: 'custom',
      path: ['content'],
      message: 'Phones would not take this for what it is. Look its fields over.',
    })
}

/** A code that carries its content itself: nobody can change it or count it once it is printed. */
export const staticCode = z.object({
  id: z.int(),
  campaignId: z.int(),
  ...fields,
  /** What its symbol carries, as it is written in it. */
  text: z.string(),
  styleName: z.string(),
  print: printState,
  version: z.int(),
  createdAt: z.int(),
})
export type StaticCode = z.infer<typeof staticCode>

export const newStaticCode = z
  .strictObject({
    campaignId: z.int(),
    ...fields,
    level: fields.level.default('M'),
    sizeMm: fields.sizeMm.default(SIZE_MM.default),
    viewingM: fields.viewingM.default(null),
    place: fields.place.default(''),
    printRun: fields.printRun.default(null),
    reference: fields.reference.default(''),
    note: fields.note.default(''),
    styleId: fields.styleId.default(null),
  })
  .superRefine(wholeContent)
export type NewStaticCode = z.input<typeof newStaticCode>

/** What can be set of one: what it carries together with its level, since one may be too much for the other. */
const change = z.strictObject({ version: z.int(), ...fields }).superRefine(wholeContent)

export const staticCodesApi = {
  list: endpoint({
    method: 'GET',
    path: '/static-codes',
    room: 'staticCodes',
    access: { right: 'view', things: { campaign: 'query.campaignId' } },
    summary: 'The static codes of a campaign, by name',
    query: pageQuery(['name', 'createdAt'], 'name').extend({
      campaignId: idQuery,
      search: z.string().max(200).optional(),
    }),
    answer: pageOf(staticCode),
  }),
  get: endpoint({
    method: 'GET',
    path: '/static-codes/:id',
    room: 'staticCodes',
    access: { right: 'view', things: { staticCode: 'params.id' } },
    summary: 'One static code',
    params: idParams,
    answer: staticCode,
  }),
  create: endpoint({
    method: 'POST',
    path: '/static-codes',
    room: 'staticCodes',
    access: { right: 'edit', things: { campaign: 'body.campaignId', houseStyle: 'body.styleId' } },
    status: 201,
    summary: 'Make a static code: it carries its content itself',
    body: newStaticCode,
    answer: staticCode,
  }),
  change: endpoint({
    method: 'PATCH',
    path: '/static-codes/:id',
    room: 'staticCodes',
    access: { right: 'edit', things: { staticCode: 'params.id', houseStyle: 'body.styleId' } },
    summary: 'Change a static code; what is printed of it stays as it was',
    params: idParams,
    body: change,
    answer: staticCode,
  }),
  remove: endpoint({
    method: 'DELETE',
    path: '/static-codes/:id',
    room: 'staticCodes',
    access: { right: 'edit', things: { staticCode: 'params.id' } },
    summary: 'Delete a static code that was never released; what is printed of it goes on being read',
    params: idParams,
  }),
}
