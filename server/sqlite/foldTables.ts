/** Where sums of facts stand whose rows are gone: see `server/figures/folds.ts`. */
export const FOLD_TABLES = [
  // In force from the moment its row is there. Rows of facts go afterwards, up to `clearedTo`.
  `CREATE TABLE folds (
    id INTEGER PRIMARY KEY AUTOINCREMENT, edition TEXT NOT NULL, fact TEXT NOT NULL, workspaceId INTEGER NOT NULL,
    before INTEGER NOT NULL, lastId INTEGER NOT NULL, keptId INTEGER NOT NULL, facts INTEGER NOT NULL, at INTEGER NOT NULL,
    clearedTo INTEGER NOT NULL, UNIQUE (edition, workspaceId))`,
  `CREATE TABLE fold_blocks (
    id INTEGER PRIMARY KEY AUTOINCREMENT, edition TEXT NOT NULL, start INTEGER NOT NULL, "end" INTEGER NOT NULL,
    facts INTEGER NOT NULL)`,
  `CREATE TABLE fold_pieces (
    id INTEGER PRIMARY KEY, blockId INTEGER NOT NULL REFERENCES fold_blocks (id) ON DELETE CASCADE, name TEXT NOT NULL,
    content BLOB NOT NULL)`,
  `CREATE INDEX fold_pieces_of_block ON fold_pieces (blockId, name)`,
] as const
