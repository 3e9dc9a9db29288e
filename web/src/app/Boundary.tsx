import { Component, type ReactNode } from "react";

/** Keeps a fault of one part, or a script that could not be loaded, from leaving a white page; what was typed stays queued. */
export class Boundary extends Component<{ children: ReactNode }, { error: Error | null }> {
  override state: { error: Error | null } = { error: null };

  static getDerivedStateFromError(error: Error) {
    return { error };
  }

  override render() {
    const { error } = this.state;
    if (!error) return this.props.children;
    return (
      <main className="mx-auto max-w-xl p-6">
        <h1 className="font-cond text-[1.875rem] font-semibold">This page could not be shown</h1>
        <p className="mt-2 text-[1.0625rem] leading-snug">
          What you typed is kept in this browser. Is Noxel still running? ({error.message.slice(0, 200)})
        </p>
        <button
          type="button"
          className="mt-4 h-11 border-2 border-ink bg-ink px-4 font-semibold text-paper"
          onClick={() => window.location.reload()}
        >
          Try again
        </button>
      </main>
    );
  }
}
