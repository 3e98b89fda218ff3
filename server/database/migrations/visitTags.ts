import type { MigrationInterface, QueryRunner } from 'typeorm'

/** Hits that the server sends after redirects, kept until they are sent; and a list of visit tags in every rule there is. */
const STATEMENTS = [
  `CREATE TABLE hits (
    id INTEGER PRIMARY KEY AUTOINCREMENT, workspaceId INTEGER NOT NULL, tagId TEXT NOT NULL, at INTEGER NOT NULL, isTest INTEGER NOT NULL,
    visit TEXT NOT NULL, attempts INTEGER NOT NULL DEFAULT 0, nextAt INTEGER, fault TEXT NOT NULL DEFAULT '')`,
  `CREATE INDEX hits_due ON hits (workspaceId, tagId, nextAt, id)`,
  `UPDATE routes SET rules = json_set(rules, '$.tags', json('[]'))`,
  `UPDATE routes SET draft = json_set(draft, '$.rules.tags', json('[]')) WHERE draft IS NOT NULL`,
  ...['before', 'after'].map(
    (side) =>
      `UPDATE revisions SET "${side}" = json_set("${side}", '$.rules.tags', json('[]')) WHERE "of" = 'route' AND json_type("${side}", '$.rules') = 'object'`,
  ),
]

export class VisitTags1764300000000 implements MigrationInterface {
  readonly name = 'VisitTags1764300000000'

  async up(runner: QueryRunner): Promise<void> {
    for (const statement of STATEMENTS) await runner.query(statement)
  }

  down(): Promise<void> {
    // Hits that are not sent yet would be lost.
    return Promise.reject(
      new Error('This migration cannot be taken back: restore the backup made before it.'),
    )
  }
}
