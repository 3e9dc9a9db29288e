import { Component, type ReactNode } from "react";

type Props = { children: ReactNode /** What could not be shown; without it, the whole page. */; part?: string };

/** Keeps a fault of one part, or a script that could not be loaded, from taking the rest with it; what was typed stays queued. */
export class Boundary extends Component<Props, { error: Error | null }> {
  override state: { error: Error | null } = { error: null };

  static getDerivedStateFromError(error: Error) {
    return { error };
  }

  override render() {
    const { error } = this.state;
    const { part, children } = this.props;
    if (!error) return children;
    const Box = part ? "section" : "main";
    const Title = part ? "h2" : "h1";
    return (
      <Box role={part ? "alert" : undefined} className="mx-auto max-w-xl p-6" data-fault={part}>
        <Title className="font-cond text-[1.875rem] leading-tight font-semibold">
          {part ? `${part} could not be shown` : "This page could not be shown"}
        </Title>
        <p className="mt-2 text-[1.0625rem] leading-snug">
          What you typed is kept. {part ? "The rest of the page goes on." : "Is Noxel still running?"} (
          {error.message.slice(0, 200)})
        </p>
        <button
          type="button"
          className="mt-4 h-11 border-2 border-ink bg-ink px-4 font-semibold text-paper"
          onClick={() => (part ? this.setState({ error: null }) : window.location.reload())}
        >
          Try again
        </button>
      </Box>
    );
  }
}
