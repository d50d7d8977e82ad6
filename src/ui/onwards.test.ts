import { createElement, useEffect } from 'react';
import { mount } from './mount.testing';
import { useOnwards, type Onwards } from './onwards';

const mockShown = { key: 'editor' };
const mockGone: string[] = [];

jest.mock('expo-router', () => ({
  useRouter: () => ({ push: (to: string) => mockGone.push(to), replace: (to: string) => mockGone.push(to) }),
  useNavigationContainerRef: () => ({ getCurrentRoute: () => mockShown }),
}));

function onwardsOfAPage(): Onwards {
  const found: Onwards[] = [];
  const Page = () => {
    const onwards = useOnwards();
    useEffect(() => void found.push(onwards), [onwards]);
    return null;
  };
  mount(createElement(Page));
  return found[0]!;
}

beforeEach(() => {
  mockGone.length = 0;
  mockShown.key = 'editor';
});

test('where something is done the page that it leads to follows, and none where it leads nowhere', async () => {
  const onwards = onwardsOfAPage();
  await onwards(Promise.resolve('7'), (id) => `/log/${id}`);
  await onwards(Promise.resolve(null), () => null);
  expect(mockGone).toEqual(['/log/7']);
});

test('whoever has gone elsewhere meanwhile is not taken away from there', async () => {
  const onwards = onwardsOfAPage();
  const saved = onwards(Promise.resolve(), () => '/instruments', 'replace');
  mockShown.key = 'log';
  await saved;
  expect(mockGone).toEqual([]);
});
