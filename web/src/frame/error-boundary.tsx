import { Component, type ReactNode } from 'react';
import './frame.css';

interface ErrorBoundaryProps {
  /** What cannot be shown when something in it fails, as in "The table". */
  readonly what: string;
  /** Whenever this changes it is tried again. */
  readonly of?: unknown;
  readonly children: ReactNode;
}

interface Failed {
  readonly why: string | null;
  readonly of: unknown;
}

/** Keeps a failure inside a part of a page: the rest stays as it is. */
export class ErrorBoundary extends Component<ErrorBoundaryProps, Failed> {
  override state: Failed = { why: null, of: this.props.of };

  static getDerivedStateFromError(thrown: unknown): Partial<Failed> {
    return { why: thrown instanceof Error ? thrown.message : String(thrown) };
  }

  static getDerivedStateFromProps({ of }: ErrorBoundaryProps, state: Failed): Failed | null {
    return Object.is(of, state.of) ? null : { why: null, of };
  }

  override render(): ReactNode {
    const { why } = this.state;
    if (why === null) return this.props.children;
    return (
      <p className="wrong failed-part" role="alert">
        {this.props.what} cannot be shown: {why}.{' '}
        <button type="button" onClick={() => this.setState({ why: null })}>
          Try again
        </button>
      </p>
    );
  }
}
