import type { MigrationInterface, QueryRunner } from 'typeorm'

/** Where pieces lie on pictures such as posters, and lay when they were released. */
const STATEMENTS = [
  `ALTER TABLE codes ADD COLUMN placement TEXT`,
  `ALTER TABLE releases ADD COLUMN placement TEXT`,
  `UPDATE revisions SET "before" = json_set("before", '$.placement', NULL) WHERE "of" = 'code' AND "before" IS NOT NULL`,
  `UPDATE revisions SET "after" = json_set("after", '$.placement', NULL) WHERE "of" = 'code'`,
]

export class Placements1765000000000 implements MigrationInterface {
  readonly name = 'Placements1765000000000'

  async up(runner: QueryRunner): Promise<void> {
    for (const statement of STATEMENTS) await runner.query(statement)
  }

  down(): Promise<void> {
    // Where pieces lie would be lost.
    return Promise.reject(
      new Error('This migration cannot be taken back: restore the backup made before it.'),
    )
  }
}
