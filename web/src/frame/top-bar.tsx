import { memo, type ReactNode } from 'react';
import { Link, NavLink } from 'react-router';
import './frame.css';

/** The name of the product, and its parts. */
const Parts = memo(function Parts(): ReactNode {
  return (
    <>
      <Link to="/studies" className="brand" aria-label="Schritt, all studies">
        <svg width="28" height="24" viewBox="0 0 28 24" aria-hidden="true">
          <path d="M2 21h5v-5h5v-5h5V6h5V2" fill="none" stroke="currentColor" strokeWidth="2" />
          <path d="M2 21C10 17 18 9 26 2" fill="none" stroke="#B5490F" strokeWidth="1.6" />
        </svg>
        Schritt
      </Link>
      <nav aria-label="Main">
        <NavLink to="/studies">Studies</NavLink>
        <NavLink to="/problems">Problems</NavLink>
        <NavLink to="/methods">Methods</NavLink>
        <NavLink to="/marking">Marking</NavLink>
      </nav>
    </>
  );
});

/** The line at the top of every page: where one is, and what can be done here. */
export function TopBar({
  title,
  actions,
}: {
  readonly title?: ReactNode;
  readonly actions?: ReactNode;
}): ReactNode {
  return (
    <header className="top-bar">
      <Parts />
      <div className="title">{title}</div>
      <div className="actions">{actions}</div>
    </header>
  );
}
