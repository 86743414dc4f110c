// What axe finds on a page. It is put into a page once, whatever is looked for there how often.
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import type { Page } from '@playwright/test';
import type { AxeResults, ElementContext, RunOptions } from 'axe-core';

const SOURCE = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8');
/** Rows of a long list are made alike: most of the time would go to looking at each of them. */
const ALIKE = ['tr:nth-child(n+13)', '[role=row]:nth-child(n+13)'];

type InPage = {
  readonly axe?: {
    readonly run: (context: ElementContext, options: RunOptions) => Promise<AxeResults>;
  };
};

export type Looking = {
  /** Only these rules. */
  readonly rules?: readonly string[];
  /** Every row of a list, however long it is. */
  readonly everyRow?: boolean;
};

/** What is wrong with a page for those who need assistance, with the elements it is wrong with. */
export async function violationsOn(
  page: Page,
  { rules, everyRow = false }: Looking,
): Promise<AxeResults['violations']> {
  if (!(await page.evaluate(() => 'axe' in window))) await page.evaluate(SOURCE);
  const context = { exclude: everyRow ? [] : ALIKE };
  const options: RunOptions = {
    resultTypes: ['violations'],
    ...(rules === undefined ? {} : { runOnly: { type: 'rule', values: [...rules] } }),
  };
  return page.evaluate(
    async ([where, how]) => {
      const { axe } = window as InPage;
      if (axe === undefined) throw new Error('axe is gone');
      return (await axe.run(where, how)).violations;
    },
    [context, options] as const,
  );
}
