import type { StudyDocument } from '@schritt/core/document';
import type { StudyResult } from '@schritt/core/study';
import { StrictMode } from 'react';
import { renderToStaticMarkup } from 'react-dom/server';
import { StaticRouter } from 'react-router';
import { KnownResult } from '../state/use-results.ts';
import { EITHER_GROUND } from '../theme/either-ground.ts';
import { PaletteContext } from '../theme/use-palette.ts';
import { StudyEditor } from './study-editor.tsx';

/**
 * The first picture of the page of a study, as a server sends it: the bar, the title and the table of errors, in the
 * places that they have on the page. Nothing in it answers; the page itself takes its place.
 *
 * @param document the study, whose texts have no errors
 * @param result its numbers
 * @param path the address of the page, without what is asked for of its view
 * @returns what goes into the root of the page, as HTML
 */
export function firstPicture(document: StudyDocument, result: StudyResult, path: string): string {
  return renderToStaticMarkup(
    <StrictMode>
      <PaletteContext value={EITHER_GROUND}>
        <KnownResult value={() => result}>
          <StaticRouter location={path}>
            <StudyEditor document={document} entry={null} />
          </StaticRouter>
        </KnownResult>
      </PaletteContext>
    </StrictMode>,
  );
}
