import { printParseErrorCode, visit } from 'jsonc-parser';
import { lineStarts, placeOf } from '../text/place.ts';

/** What is wrong with a text that is no JSON, and where. */
export interface JsonFault {
  readonly line: number;
  readonly column: number;
  readonly message: string;
}

/** What to say of each code of the parser. */
const MESSAGES: Readonly<Record<string, string>> = {
  InvalidSymbol: 'this is no value; texts and names are in double quotes',
  InvalidNumberFormat: 'this is no number of JSON',
  PropertyNameExpected: 'a name in double quotes is expected here',
  ValueExpected: 'a value is expected here',
  ColonExpected: 'a colon is expected here',
  CommaExpected: 'a comma is expected here',
  CloseBraceExpected: 'a closing brace is expected here',
  CloseBracketExpected: 'a closing bracket is expected here',
  EndOfFileExpected: 'the file should end here',
  InvalidCommentToken: 'JSON has no comments',
  UnexpectedEndOfComment: 'JSON has no comments',
  UnexpectedEndOfString: 'this text has no closing quote in its line',
  UnexpectedEndOfNumber: 'this number is incomplete',
  InvalidUnicode: 'four hexadecimal digits are expected behind \\u',
  InvalidEscapeCharacter: 'there is no such escape in JSON; a backslash itself is written \\\\',
  InvalidCharacter: 'a line break or a control character in a text is written \\n, \\t or \\u',
};

/**
 * The first fault of a text that is no JSON; at its end where none is found.
 *
 * @example jsonFault('{"a": 1,}').column // 9
 */
export function jsonFault(text: string): JsonFault {
  const found: { readonly code: string; readonly offset: number }[] = [];
  visit(
    text,
    { onError: (error, offset) => found.push({ code: printParseErrorCode(error), offset }) },
    { disallowComments: true, allowTrailingComma: false },
  );
  const [{ code, offset } = { code: 'ValueExpected', offset: text.length }] = found;
  return {
    ...placeOf(lineStarts(text), Math.min(offset, text.length)),
    message: MESSAGES[code] ?? 'a value is expected here',
  };
}
