import type { MigrationInterface, QueryRunner } from 'typeorm'
import { FOLD_TABLES } from '../../sqlite/index.ts'

/** Facts older than a workspace keeps them are folded into sums. */
export class Folds1765300000000 implements MigrationInterface {
  readonly name = 'Folds1765300000000'

  async up(runner: QueryRunner): Promise<void> {
    for (const statement of FOLD_TABLES) await runner.query(statement)
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const table of ['fold_pieces', 'fold_blocks', 'folds']) await runner.query(`DROP TABLE ${table}`)
  }
}
