import 'reflect-metadata';
import { documentSchema, faultsOf } from '@schritt/core/format';
import { plainToInstance } from 'class-transformer';
import { validateSync } from 'class-validator';
import { CreateEntryDto, ReplaceEntryDto } from '../entries/entry.dto.ts';
import { ANY_DOCUMENT, documentSchemas, STUDY_DOCUMENT } from './document-schema.ts';
import { textFaults } from '../threads/request-pool.ts';

const METHOD = { schritt: 1, kind: 'method', title: 'Euler', text: 'y[n+1] = y + h*f(t, y)' };

function faults(body: object): readonly string[] {
  const errors = validateSync(body, { whitelist: true, forbidNonWhitelisted: true, stopAtFirstError: true });
  return faultsOf(errors).map(({ place, message }) => `${place}: ${message}`);
}

test('a document of a request is checked by the classes of the format, every fault with its place', () => {
  expect(faults(plainToInstance(CreateEntryDto, { document: METHOD }))).toEqual([]);
  expect(
    faults(plainToInstance(CreateEntryDto, { document: { ...METHOD, title: 3, colour: 'red' } })),
  ).toEqual(['document.colour: is not a field of this format', 'document.title: must be a string']);
  expect(faults(plainToInstance(CreateEntryDto, {}))[0]).toContain('document: is missing');
  expect(faults(plainToInstance(CreateEntryDto, { document: { ...METHOD, kind: 'poem' } }))).toEqual([
    'document: kind must be one of "study", "problem", "method"',
  ]);
});

test.each([0, 1.5, '1', null])('a version of %p is none', (version) => {
  expect(faults(plainToInstance(ReplaceEntryDto, { document: METHOD, version }))).not.toEqual([]);
});

test('the schemas of the API are those of the format, with references that lead somewhere', () => {
  const schemas = documentSchemas();
  expect(Object.keys(schemas).sort()).toEqual(Object.keys(Object(documentSchema()['definitions'])).sort());
  const text = JSON.stringify([schemas, ANY_DOCUMENT, STUDY_DOCUMENT]);
  expect(text).not.toContain('#/definitions/');
  const references = [...text.matchAll(/#\/components\/schemas\/(\w+)/g)].map(([, name]) => name ?? '');
  expect(references.length).toBeGreaterThan(10);
  for (const name of references) expect(Object.keys(schemas)).toContain(name);
});

test('errors of texts are faults with their places', () => {
  const errors = [{ line: 2, column: 5, length: 1, message: 'decimals take a point' }];
  expect(textFaults([{ text: { method: 1 }, title: 'Heun', errors }])).toEqual([
    { place: 'Heun, line 2, column 5', message: 'decimals take a point' },
  ]);
});
