import { type Inspection, inspectMethod } from '../src/inspect/inspect-method.ts';
import { findSlips, type MethodSlips } from '../src/inspect/slips/find-slips.ts';
import { parseMethod } from '../src/method/parse-method.ts';

/** What is proved of the text of a method, and its likely mistakes. @throws Error where the text cannot be read */
export function inspectedText(text: string): Inspection & MethodSlips {
  const reading = parseMethod(text);
  if (!reading.ok) throw new Error(`${JSON.stringify(reading.errors)} in\n${text}`);
  return { ...inspectMethod(reading.value), ...findSlips(reading.value) };
}
