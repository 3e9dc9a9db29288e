import { useEffect, useRef, useState } from "react";
import type { VisitStep } from "../api/client";
import { Button } from "../ui/controls";

type Lines = NonNullable<VisitStep["asked"]>;

/** What a voice asks at the scale and what to answer; rehearsed with a recording where one wants to. */
export function Asked({ lines }: { lines: Lines }) {
  const [turn, setTurn] = useState<number | null>(null);
  const [heard, setHeard] = useState(false);
  const sound = useRef<HTMLAudioElement | null>(null);
  useEffect(() => () => sound.current?.pause(), []);
  const play = (row: number) => {
    sound.current?.pause();
    setTurn(row < lines.length ? row : null);
    setHeard(false);
    const name = lines[row]?.sound;
    if (!name) return setHeard(true);
    const audio = new Audio(`/voice/${name}.mp3`);
    sound.current = audio;
    const done = () => sound.current === audio && setHeard(true); // not of one that was stopped
    audio.onended = done;
    audio.play().catch(done); // without a sound its text stands there
  };
  return (
    <>
      <div className="flex min-h-13 items-center justify-between bg-ink py-1 pr-1 pl-3 font-cond text-[1rem] font-semibold text-paper">
        <h2 id="asked">The voice will ask · you say</h2>
        {turn === null && (
          <button type="button" className="min-h-11 px-2 underline underline-offset-4" onClick={() => play(0)}>
            Rehearse it aloud
          </button>
        )}
      </div>
      <table aria-labelledby="asked" className="w-full border border-ink bg-card text-left">
        <tbody>
          {lines.map((line, row) => (
            <tr key={line.what} className={`border-t border-rule ${row === turn ? "bg-sunk" : ""}`}>
              <th scope="row" className="px-3 py-2.5 text-[1.0625rem] font-normal">
                {line.what}
              </th>
              <td className="px-3 text-right font-cond text-[1.25rem] font-semibold">
                {turn === null || row < turn ? line.say : row === turn && heard ? "your turn" : ""}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {turn !== null && (
        <div className="mt-2 flex flex-wrap items-center gap-2">
          <Button strong className="min-h-12" disabled={!heard} onClick={() => play(turn + 1)}>
            I said it
          </Button>
          <Button className="min-h-12" onClick={() => play(lines.length)}>
            Stop
          </Button>
          <p className="text-[0.9375rem] text-soft">Answer aloud, then go on.</p>
        </div>
      )}
    </>
  );
}
