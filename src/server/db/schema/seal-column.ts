import { blob } from 'drizzle-orm/sqlite-core';

/** A keyed hash over what decides in a row, made with every change that this product makes: see `db/seals`. */
export const seal = () => blob({ mode: 'buffer' });
