import { Button } from 'antd';
import type { ReactNode } from 'react';
import { Link, useParams } from 'react-router';
import { ApiFailure, storedText } from '../api/client.ts';
import { useEntry } from '../api/use-entries.ts';
import { download } from '../plots/download.ts';
import { LoadingPage, MessagePage } from '../frame/message-page.tsx';
import { StudyEditor } from './study-editor.tsx';

/** The address of one study: loads it, then opens its editor. */
export function StudyPage(): ReactNode {
  const { id = '' } = useParams();
  const { data, error } = useEntry('study', id);
  if (error !== undefined)
    return (
      <MessagePage title={`This study cannot be opened: ${error.message}.`}>
        <p>
          <Link to="/studies">All studies</Link>
          {error instanceof ApiFailure && error.code === 'damaged' && (
            <>
              {' · '}
              <Button
                size="small"
                onClick={() =>
                  void storedText('study', id).then((text) => download('stored.schritt.json', text))
                }
              >
                Download stored text
              </Button>
            </>
          )}
        </p>
      </MessagePage>
    );
  if (data === undefined) return <LoadingPage />;
  return <StudyEditor key={id} document={data.document} entry={data} />;
}
