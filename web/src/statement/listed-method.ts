import { isImplicit, LIBRARY, methodTex, parseMethod } from '@schritt/core/notation';

/** A row of a list that is searched. */
export interface Listed {
  readonly value: string;
  readonly label: string;
  /** The last formula of a method as TeX; null of a text that cannot be read, and where there is none. */
  readonly formula: string | null;
  /** What kind of formula it is, and its order where that is known. */
  readonly told: string;
}

/** What a list tells of a method: its order, if it is one of the library, and what kind of formula it is. */
export function listedMethod(value: string, title: string, text: string): Listed {
  const reading = parseMethod(text);
  if (!reading.ok) return { value, label: title, formula: null, told: '' };
  const method = reading.value;
  const known = LIBRARY.find((one) => one.title === title && one.text === text);
  const kinds = [
    known === undefined ? '' : `order ${known.order}`,
    isImplicit(method) ? 'implicit' : 'explicit',
    method.depth > 0 ? `${method.depth + 1} steps` : 'one step',
    method.form === 'second order' ? "for x'' = a" : '',
  ];
  return {
    value,
    label: title,
    formula: methodTex(method).findLast((line) => line.includes('_{n+1} =')) ?? null,
    told: kinds.filter((kind) => kind !== '').join(', '),
  };
}
