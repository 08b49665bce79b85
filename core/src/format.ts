// What others use of the file format: reading and checking files, their schema and their limits.
export { documentInstance, headFault } from './document/document-class.ts';
export { DOCUMENT_LIMITS, jsonExcess, type JsonLimits, reservedKey } from './document/json-limits.ts';
export { faultsOf, presentDocument, readDocument, readDocumentText } from './document/read-document.ts';
export { documentSchema, documentSchemas } from './document/schema.ts';
