import type { Watermark } from '@/core/watermark/layers';
import { integer, primaryKey, sqliteTable, text } from 'drizzle-orm/sqlite-core';
import type { StaffId } from '@/core/base/ids';
import type { Limits } from '@/core/policy/ceiling';
import type { Defaults } from '@/core/policy/defaults';
import type { Level } from '@/core/policy/levels';
import type { Leave, Way } from '@/core/policy/rules';
import { staff } from '@/server/db/schema/staff';
import { seal } from '@/server/db/schema/seal-column';

/** The most that may be given below a level. */
export const ceilings = sqliteTable(
  'ceilings',
  {
    level: text().$type<Level>().notNull(),
    /** The marking, folder or document; empty for the organisation. */
    subject: text().notNull(),
    limits: text({ mode: 'json' }).$type<Limits>().notNull(),
    setBy: text()
      .$type<StaffId>()
      .notNull()
      .references(() => staff.id),
    setAt: integer().notNull(),
    seal: seal(),
  },
  (table) => [primaryKey({ columns: [table.level, table.subject] })],
);

/** What the organisation decided about ways of handing something out. */
export const rules = sqliteTable('rules', {
  way: text().$type<Way>().primaryKey(),
  leave: text().$type<Leave>().notNull(),
  reason: text().notNull(),
  setBy: text()
    .$type<StaffId>()
    .notNull()
    .references(() => staff.id),
  setAt: integer().notNull(),
  seal: seal(),
});

/** What dispatches below a level begin with, and what stands on every page there. */
export const levelDefaults = sqliteTable(
  'level_defaults',
  {
    level: text().$type<Level>().notNull(),
    /** The marking, folder or document; empty for the organisation. */
    subject: text().notNull(),
    defaults: text({ mode: 'json' }).$type<Defaults>().notNull(),
    watermark: text({ mode: 'json' }).$type<Watermark>().notNull(),
    setBy: text()
      .$type<StaffId>()
      .notNull()
      .references(() => staff.id),
    setAt: integer().notNull(),
    seal: seal(),
  },
  (table) => [primaryKey({ columns: [table.level, table.subject] })],
);
