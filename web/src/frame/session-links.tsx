import { Button } from 'antd';
import type { ReactNode } from 'react';
import useSWR from 'swr';
import { useNavigate } from 'react-router';
import { loadAccess, logout } from '../api/client.ts';
import { notices } from './notices.tsx';

/** Logs this browser out, or all browsers; nothing on a server without a key. */
export function SessionLinks(): ReactNode {
  const { data } = useSWR('access', loadAccess, { revalidateOnFocus: false });
  const navigate = useNavigate();
  if (data?.hasKey !== true || !data.mayWrite) return null;
  const leave = (which: Parameters<typeof logout>[0]): (() => void) =>
    notices.reporting(async () => {
      await logout(which);
      await navigate('/open');
    });
  return (
    <>
      <Button type="link" size="small" onClick={leave('this browser')}>
        Log out
      </Button>
      <Button type="link" size="small" onClick={leave('all browsers')}>
        Log out all browsers
      </Button>
    </>
  );
}
