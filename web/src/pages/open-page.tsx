import { type ReactNode, useEffect, useState } from 'react';
import { useNavigate } from 'react-router';
import { login } from '../api/client.ts';
import { MessagePage } from '../frame/message-page.tsx';

/** The link that the server prints: takes the key behind the #, which no log has seen, and goes on. */
export function OpenPage(): ReactNode {
  const [why, setWhy] = useState<string | null>(null);
  const navigate = useNavigate();
  useEffect(() => {
    const key = decodeURIComponent(window.location.hash.slice(1));
    window.history.replaceState(null, '', '/open');
    if (key === '') return;
    login(key)
      .then(() => navigate('/studies', { replace: true }))
      .catch((thrown: unknown) => setWhy(thrown instanceof Error ? thrown.message : String(thrown)));
  }, [navigate]);
  if (why !== null) return <MessagePage title={`This browser could not log in: ${why}`} />;
  return (
    <MessagePage
      status="info"
      title="Open the link that the server printed at start. It ends with the key."
    />
  );
}
