import Alert from "@mui/material/Alert";
import { Component, type ErrorInfo, type ReactNode } from "react";

interface ContainedProps {
  /** What is shown: with another name, what failed before is tried anew. */
  name: string;
  /** What is shown in its place, in words. */
  message: string;
  children: ReactNode;
}

interface ContainedState {
  readonly failed: boolean;
  readonly name: string;
}

/** A part of a screen whose failure does not take the rest with it. */
export class Contained extends Component<ContainedProps, ContainedState> {
  override state: ContainedState = { failed: false, name: this.props.name };

  static getDerivedStateFromError() {
    return { failed: true };
  }

  // Not by a key: with a new boundary the screen would go blank while the next part is fetched.
  static getDerivedStateFromProps({ name }: ContainedProps, state: ContainedState): ContainedState | null {
    return name === state.name ? null : { failed: false, name };
  }

  override componentDidCatch(error: Error, { componentStack }: ErrorInfo) {
    console.error(error, componentStack);
  }

  override render() {
    const { message, children } = this.props;
    return this.state.failed ? (
      <Alert severity="error" sx={{ mb: 1 }}>
        {message}
      </Alert>
    ) : (
      children
    );
  }
}
