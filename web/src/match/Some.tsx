import { Button } from "../ui/controls";

/** Which of very many vehicles or trailers the table holds, and the way to the others. */
export function Some(props: {
  side: "vehicles" | "trailers";
  from: number;
  shown: number;
  count: number;
  onFrom: (from: number) => void;
}) {
  const { side, from, shown, count, onFrom } = props;
  if (count <= shown) return null;
  return (
    <div className="mt-2 flex flex-wrap items-center gap-3 text-[0.9375rem]">
      {side === "vehicles" ? "Vehicles" : "Trailers"} {from + 1} to {Math.min(from + shown, count)} of {count}, by name
      <Button disabled={from === 0} onClick={() => onFrom(Math.max(0, from - shown))}>
        Earlier
      </Button>
      <Button disabled={from + shown >= count} onClick={() => onFrom(from + shown)}>
        Later
      </Button>
    </div>
  );
}
