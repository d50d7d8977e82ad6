import type { ComponentType } from 'react';
import { later } from './later';
import { Screen } from './screen';
import { Soft } from './text';

/** A page that is loaded when it is first shown; until then its frame stands there with its title. */
export function pageLater(
  title: string,
  load: () => Promise<ComponentType<object>>,
  caption?: string,
): ComponentType<object> {
  return later(
    load,
    <Screen title={title} {...(caption !== undefined && { caption })}>
      <Soft>Opening …</Soft>
    </Screen>,
  );
}
