import { pressed } from "./said";

/** What a keyboard or a reader takes hold of: it covers a part of the drawing and says what that shows. */
export function Handle(props: {
  says: string;
  onPick: () => void;
  x: number;
  y: number;
  width: number;
  height: number;
}) {
  const { says, onPick, ...box } = props;
  return (
    // biome-ignore lint/a11y/useSemanticElements: SVG has no button
    <rect
      role="button"
      tabIndex={0}
      aria-label={says}
      onKeyDown={pressed(onPick)}
      className="outline-offset-2"
      fill="transparent"
      {...box}
    />
  );
}
