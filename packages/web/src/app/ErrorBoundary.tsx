import { Component, type ReactNode } from 'react';
import { Message } from './Message';

interface BoundaryProps {
  /** What is shown, in words: "The Chart". */
  readonly what: string;
  readonly children: ReactNode;
}

/** Shows an error in place of a failing view; the rest of the page and the plan keep working. */
export class ErrorBoundary extends Component<BoundaryProps, { readonly failure: string | null }> {
  override state = { failure: null };

  static getDerivedStateFromError(error: unknown) {
    return { failure: error instanceof Error ? error.message : String(error) };
  }

  override render() {
    const { failure } = this.state;
    if (failure === null) return this.props.children;
    return (
      <Message
        title={`${this.props.what} could not be displayed`}
        action={{ label: 'Try again', run: () => this.setState({ failure: null }) }}
      >
        The plan is not affected and its edits are kept. Cause: {failure}
      </Message>
    );
  }
}
