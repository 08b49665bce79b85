import { Button } from 'antd';
import type { ReactNode } from 'react';
import { Link } from 'react-router';
import { ApiFailure, storedText } from '../api/client.ts';
import { download } from '../plots/download.ts';
import { MessagePage } from '../frame/message-page.tsx';

/** Why a stored study cannot be opened, and how its text is saved where it is damaged. */
export function UnopenedStudy({ id, error }: { readonly id: string; readonly error: Error }): ReactNode {
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
}
