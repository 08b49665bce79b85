import type { ReactNode } from 'react';
import { isRouteErrorResponse, Link, useRouteError } from 'react-router';
import { Message } from './message.tsx';

function reason(thrown: unknown): string {
  if (isRouteErrorResponse(thrown)) return thrown.statusText;
  return thrown instanceof Error ? thrown.message : String(thrown);
}

/** Stands for a page that failed as a whole; drafts are in the browser and are offered when it is opened again. */
export function PageBoundary(): ReactNode {
  const thrown = useRouteError();
  return (
    <Message title={`This page cannot be shown: ${reason(thrown)}.`}>
      <p role="alert">
        What you typed is stored in this browser and is offered when you open the page again.{' '}
        <Link to="/studies">All studies</Link>
      </p>
    </Message>
  );
}
