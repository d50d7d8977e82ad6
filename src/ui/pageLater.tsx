import type { ComponentType } from 'react';
import { later, type Later } from './later';
import { Screen } from './screen';
import { Soft } from './text';

const pages: Later<object>[] = [];

/** A page that is loaded when it is first shown; until then its frame stands there with its title. */
export function pageLater(
  title: string,
  load: () => Promise<ComponentType<object>>,
  caption?: string,
): Later<object> {
  const page = later(
    load,
    <Screen title={title} {...(caption !== undefined && { caption })}>
      <Soft>Opening …</Soft>
    </Screen>,
  );
  pages.push(page);
  return page;
}

/** Loads pages that were not gone to yet, one after the other and each when nothing else is to be done. */
export async function loadPagesAhead(): Promise<void> {
  for (const page of pages) {
    await new Promise((idle) => {
      // Some engines do not tell when they are idle.
      if ('requestIdleCallback' in window) requestIdleCallback(idle);
      else setTimeout(idle, 50);
    });
    await page.ahead();
  }
}
