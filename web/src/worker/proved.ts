import { effectiveProof, inspectMethod } from '@schritt/core/inspect';
import { type Method, parseMethod } from '@schritt/core/notation';

/** The proved order of a method in a few words; null where none is proved. */
export function provedText(method: Method): string | null {
  const proof = effectiveProof(inspectMethod(method));
  if (proof === null) return null;
  if (proof.zero?.stable === false) return 'not stable';
  return proof.order < 1 ? 'order 0' : `order ${proof.order}${proof.atLeast ? ' or more' : ''}`;
}

/** The proved order of each text in a few words; null where none is proved, or the text cannot be read. */
export function provedTexts(texts: readonly string[]): readonly (string | null)[] {
  return texts.map((text) => {
    const reading = parseMethod(text);
    return reading.ok ? provedText(reading.value) : null;
  });
}
