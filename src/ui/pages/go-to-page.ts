'use client';

import { createContext, useContext } from 'react';

const GoToPage = createContext<(page: number) => void>(() => undefined);
export const GoToPageProvider = GoToPage.Provider;

/** The way to a page, for what stands beside the pages. */
export function useGoToPage(): (page: number) => void {
  return useContext(GoToPage);
}
