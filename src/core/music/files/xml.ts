import { XMLParser, XMLValidator } from 'fast-xml-parser';
import * as z from 'zod';
import { failure, success, type Outcome } from '@/core/base';

/** One element of the parsed file: its name, its attributes, its children in order. */
export interface Element {
  readonly name: string;
  readonly attributes: Readonly<Record<string, string>>;
  readonly children: readonly Element[];
  readonly text: string;
}

const rawSchema: z.ZodType<Record<string, unknown>[]> = z.array(z.record(z.string(), z.unknown()));

function elementsOf(raw: unknown): Element[] {
  const list = rawSchema.safeParse(raw);
  if (!list.success) return [];
  return list.data.flatMap((node) => {
    const name = Object.keys(node).find((key) => key !== ':@');
    if (name === undefined || name === '#text') return [];
    const inside = node[name];
    const attributes = Object.fromEntries(
      Object.entries((node[':@'] ?? {}) as Record<string, unknown>).map(([key, value]) => [
        key.replace('@_', ''),
        String(value),
      ]),
    );
    const texts = rawSchema.safeParse(inside);
    const text = texts.success
      ? texts.data
          .map((part) => part['#text'])
          .filter((part) => part !== undefined)
          .map(String)
          .join('')
      : '';
    return [{ name, attributes, children: elementsOf(inside), text }];
  });
}

/** The first child of a name. */
export const child = (element: Element | undefined, name: string) =>
  element?.children.find((each) => each.name === name);
/** The text of the first child of a name. */
export const textOf = (element: Element | undefined, name: string) => child(element, name)?.text;
/** The same as a number, where it is one. */
export const numberOf = (element: Element | undefined, name: string) => {
  const value = Number(textOf(element, name));
  return Number.isFinite(value) && textOf(element, name) !== undefined ? value : undefined;
};
/** All elements of a name within another, in order. */
export function* descendants(element: Element, name: string): Generator<Element> {
  for (const each of element.children) {
    if (each.name === name) yield each;
    yield* descendants(each, name);
  }
}
/** The first element of a name anywhere within another. */
export const first = (element: Element | undefined, name: string) =>
  element ? (descendants(element, name).next().value as Element | undefined) : undefined;

/** The parser quotes what it did not understand, which may be all of the file. */
const MOST_WORDS = 120;
const inShort = (words: string): string =>
  words.length <= MOST_WORDS ? words : `${words.slice(0, MOST_WORDS)} …`;

/** The root elements of an XML text. What kind of file it says it is, and where that is described, is never looked up. */
export function parsed(file: string): Outcome<Element[]> {
  if (/<!ENTITY/i.test(file))
    return failure('the file defines entities of its own, which music does not need');
  const text = file.replace(/<!DOCTYPE[^>[]*(\[[^\]]*\])?[^>]*>/i, '');
  const valid = XMLValidator.validate(text);
  if (valid !== true)
    return failure(`the file is not well-formed XML (line ${valid.err.line}): ${inShort(valid.err.msg)}`);
  const raw: unknown = new XMLParser({
    preserveOrder: true,
    ignoreAttributes: false,
    parseTagValue: false,
  }).parse(text);
  return success(elementsOf(raw));
}
