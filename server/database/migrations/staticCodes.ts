import type { MigrationInterface, QueryRunner } from 'typeorm'

/** Codes that carry their content themselves. */
const STATEMENTS = [
  `CREATE TABLE static_codes (
    id INTEGER PRIMARY KEY AUTOINCREMENT, campaignId INTEGER NOT NULL REFERENCES campaigns (id), name TEXT NOT NULL, content TEXT NOT NULL,
    level TEXT NOT NULL CHECK (level IN ('L', 'M', 'Q', 'H')), sizeMm REAL NOT NULL, viewingM REAL, place TEXT NOT NULL, printRun INTEGER,
    reference TEXT NOT NULL, note TEXT NOT NULL, styleId INTEGER REFERENCES house_styles (id), proofKey TEXT NOT NULL DEFAULT '', proof TEXT,
    version INTEGER NOT NULL, createdAt INTEGER NOT NULL)`,
  `CREATE INDEX static_codes_of_campaign ON static_codes (campaignId, name)`,
  `CREATE INDEX static_codes_by_style ON static_codes (styleId) WHERE styleId IS NOT NULL`,
]

export class StaticCodes1764900000000 implements MigrationInterface {
  readonly name = 'StaticCodes1764900000000'

  async up(runner: QueryRunner): Promise<void> {
    for (const statement of STATEMENTS) await runner.query(statement)
  }

  down(): Promise<void> {
    // Static codes would be lost.
    return Promise.reject(
      new Error('This migration cannot be taken back: restore the backup made before it.'),
    )
  }
}
