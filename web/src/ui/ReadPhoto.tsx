import { useQuery } from "@tanstack/react-query";
import { type ChangeEvent, useState } from "react";
import { api, type ReadFigure, type TakenApart } from "../api/client";
import { useLost } from "../api/reach";
import { useDesk } from "../api/useSheet";
import { useVisitor } from "../api/visitor";
import { Slip } from "./Dialog";
import { keepPhoto } from "./keepPhoto";
import { ReadList, useTake } from "./ReadList";

/** What a photograph is read for: the part of the rig that its label is of, or the pass of a ticket. */
export type Reads = {
  part?: TakenApart["part"];
  into?: string;
  /** Where the figures go, when not into the rig itself. */
  onTake?: (figures: readonly ReadFigure[]) => void;
};

/** Takes or chooses a photograph and reads it: kept as evidence, its figures to be looked at. */
export function ReadPhoto(props: {
  about: string;
  label: string;
  reads: Reads;
  weighIn?: string | undefined;
  visit?: string | undefined;
  big?: boolean;
  className?: string;
  /** When its figures were taken. */
  onTaken?: () => void;
}) {
  const { about, label, reads, weighIn, visit, big = false, className = "", onTaken } = props;
  const { sheet } = useDesk();
  const { viewing } = useVisitor();
  const [photo, setPhoto] = useState<string | null>(null);
  if (viewing) return null;
  const taken = (event: ChangeEvent<HTMLInputElement>) =>
    setPhoto(keepPhoto(sheet.id, { about, label, weighIn, visit }, event.target));
  return (
    <>
      <label
        className={`inline-flex cursor-pointer items-center font-cond has-focus-visible:outline-2 ${big ? "min-h-13 w-full justify-center border border-ink text-[1.1875rem] font-semibold" : "min-h-11 text-[1rem] font-semibold underline underline-offset-2"} ${className}`}
      >
        <input type="file" accept="image/jpeg,image/png,image/webp" className="sr-only" onChange={taken} />
        {big ? `Read ${label[0]?.toLowerCase()}${label.slice(1)} from a photo` : "read it from a photo"}
      </label>
      <Slip open={photo !== null} onOpenChange={() => setPhoto(null)} title={`Read: ${label}`} wide quiet>
        {photo && (
          <Reading
            photo={photo}
            label={label}
            reads={reads}
            onClose={(took) => {
              setPhoto(null);
              if (took) onTaken?.();
            }}
          />
        )}
      </Slip>
    </>
  );
}

/** A frame an eighth wider on both sides: where a word begins and ends is known to a letter only. */
function widened(frame: number[][]): number[][] {
  const beside = [1, 0, 3, 2]; // the corners go round from the top left
  return frame.map((corner, index) =>
    corner.map((value, axis) => value + (value - (frame[beside[index] ?? index]?.[axis] ?? value)) / 8),
  );
}

/** The photograph with what was read framed on it, and the figures beside it, to be taken. */
export function Reading(props: { photo: string; label: string; reads: Reads; onClose: (took: boolean) => void }) {
  const { photo, label, reads, onClose } = props;
  const { sheet } = useDesk();
  const lost = useLost();
  const [part, setPart] = useState<TakenApart["part"] | null>(reads.part ?? null);
  const [lit, setLit] = useState<string | null>(null);
  const take = useTake(reads.into);
  const kept = useQuery({ queryKey: ["photos", sheet.id], queryFn: () => api.photos(sheet.id), staleTime: 60_000 });
  const there = kept.data?.some((each) => each.id === photo) ?? false;
  const able = useQuery({ queryKey: ["reads"], queryFn: api.reads, staleTime: Number.POSITIVE_INFINITY });
  const read = useQuery({
    queryKey: ["read", sheet.id, photo, part, reads.into ?? null],
    queryFn: () => api.readPhoto(sheet.id, photo, { part, into: reads.into ?? null }),
    enabled: there && able.data?.reads === true,
    staleTime: Number.POSITIVE_INFINITY,
    retry: false,
  });
  const answer = read.data;
  return answer ? (
    <div className="gap-5 md:grid md:grid-cols-[1fr_24rem]">
      <Framed sheet={sheet.id} photo={photo} answer={answer} lit={lit} />
      <ReadList
        key={answer.part}
        answer={answer}
        onPart={reads.part === "pass" ? undefined : setPart}
        onLook={setLit}
        onTake={(figures) => {
          if (reads.onTake) reads.onTake(figures);
          else take(answer, figures, `read from a photograph of ${label.toLowerCase()}`);
          onClose(true);
        }}
        nothing="Text was seen on it, but no figure with words that Noxel knows. Closer, level, without flash, all of the label in the picture; or choose what it is of. The photograph is kept."
      />
    </div>
  ) : (
    <p role="status" className="py-4 text-[1.0625rem] leading-snug">
      {read.error
        ? `${read.error.message} The photograph is kept.`
        : able.data?.reads === false
          ? `${able.data.how} The photograph is kept.`
          : lost !== null
            ? "The photograph is kept on this device. When the computer answers it is sent there; then read it from its small picture."
            : there
              ? "Reading … This takes a few seconds."
              : "Keeping the photograph …"}
    </p>
  );
}

function Framed({
  sheet,
  photo,
  answer,
  lit,
}: {
  sheet: string;
  photo: string;
  answer: TakenApart;
  lit: string | null;
}) {
  const turned = answer.turned ? `?turned=${answer.turned}` : "";
  return (
    <div className="relative self-start">
      <img
        src={`${api.photoAt(sheet, photo, false)}${turned}`}
        alt="The photograph; what was read is framed and numbered as in the list"
        className="h-auto w-full"
      />
      <svg viewBox="0 0 100 100" preserveAspectRatio="none" className="absolute inset-0 h-full w-full" aria-hidden>
        {answer.figures.map(
          (each) =>
            each.frame && (
              <polygon
                key={each.path}
                points={widened(each.frame)
                  .map(([x, y]) => `${(x ?? 0) * 100},${(y ?? 0) * 100}`)
                  .join(" ")}
                className={each.doubt ? "stroke-ochre" : "stroke-spruce"}
                fill={lit === each.path ? "rgb(255 255 255 / 0.45)" : "none"}
                strokeWidth={lit === each.path ? 4 : 2.5}
                strokeDasharray={each.doubt ? "6 4" : undefined}
                vectorEffect="non-scaling-stroke"
              />
            ),
        )}
      </svg>
      {answer.figures.map(
        (each, index) =>
          each.frame && (
            <span
              key={each.path}
              aria-hidden
              className="absolute -translate-y-1/2 bg-ink px-1 font-cond text-[0.8125rem] leading-tight text-paper"
              style={{ left: `${(each.frame[1]?.[0] ?? 0) * 100}%`, top: `${(each.frame[1]?.[1] ?? 0) * 100}%` }}
            >
              {index + 1}
            </span>
          ),
      )}
    </div>
  );
}
