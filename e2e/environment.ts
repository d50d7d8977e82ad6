import type { Circus } from '@jest/types';
import { TestEnvironment } from 'jest-environment-node';

/** What the failed test's page shows, where there is one. */
export type Showing = () => Promise<string>;

/** A test that fails says what its page showed just then: what happens once in a hundred runs is not seen again. */
export default class BrowserEnvironment extends TestEnvironment {
  async handleTestEvent(event: Circus.Event): Promise<void> {
    if (event.name !== 'test_fn_failure') return;
    const { showing } = this.global as { showing?: Showing };
    if (showing) console.warn(`${event.test.name}: the page showed\n${await showing().catch(String)}`);
  }
}
