import Alert from "@mui/material/Alert";
import { Component, type ErrorInfo, type ReactNode } from "react";

interface ContainedProps {
  /** What is shown in its place, in words. */
  message: string;
  children: ReactNode;
}

/** A part of a screen whose failure does not take the rest with it. Give it a key, so that another part begins anew. */
export class Contained extends Component<ContainedProps, { failed: boolean }> {
  override state = { failed: false };

  static getDerivedStateFromError() {
    return { failed: true };
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
