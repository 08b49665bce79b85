import { type Inspection, inspectMethod } from '../src/inspect/inspect-method.ts';
import { parseMethod } from '../src/method/parse-method.ts';

/** What an inspection finds in the text of a method. @throws Error where the text cannot be read */
export function inspectedText(text: string): Inspection {
  const reading = parseMethod(text);
  if (!reading.ok) throw new Error(`${JSON.stringify(reading.errors)} in\n${text}`);
  return inspectMethod(reading.value);
}
