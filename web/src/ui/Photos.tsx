import { useQuery, useQueryClient } from "@tanstack/react-query";
import { type ChangeEvent, useState } from "react";
import { api, type Photo } from "../api/client";
import { useQueue } from "../api/queue";
import { useDesk } from "../api/useSheet";
import { useVisitor } from "../api/visitor";
import { when } from "../format";
import { Button } from "./controls";
import { Slip } from "./Dialog";
import { keepPhoto } from "./keepPhoto";
import { Reading, ReadPhoto, type Reads } from "./ReadPhoto";

/** Photographs of one thing, such as a label: small beside it, large on a tap; taken or chosen here. */
export function Photos(props: {
  about: string;
  label: string;
  weighIn?: string | undefined;
  visit?: string;
  big?: boolean;
  /** Whether the link says what of, where no title stands above it. */
  named?: boolean;
  /** What its figures are read for, where there are any to read. */
  reads?: Reads;
}) {
  const { about, label, weighIn, visit, big = false, named = false, reads } = props;
  const { sheet } = useDesk();
  const { viewing } = useVisitor();
  const queries = useQueryClient();
  const key = ["photos", sheet.id];
  const all = useQuery({ queryKey: key, queryFn: () => api.photos(sheet.id), staleTime: 60_000 });
  const waiting = useQueue().waiting.filter(
    (each) => each.kind === "photo" && each.rig === sheet.id && each.about === about,
  );
  const [open, setOpen] = useState<Photo | null>(null);
  const [asked, setAsked] = useState(false);
  const [reading, setReading] = useState(false);
  const mine = (all.data ?? []).filter((each) => each.about === about && (each.weigh_in ?? undefined) === weighIn);
  const take = (event: ChangeEvent<HTMLInputElement>) =>
    void keepPhoto(sheet.id, { about, label, weighIn, visit }, event.target);
  const close = () => {
    setOpen(null);
    setReading(false);
  };
  const drop = async (photo: Photo) => {
    queries.setQueryData(key, await api.dropPhoto(sheet.id, photo.id));
    setOpen(null);
    setAsked(false);
  };
  return (
    <div className="no-print flex flex-wrap items-center gap-2 py-1" data-photos={about}>
      {mine.map((each) => (
        <button
          key={each.id}
          type="button"
          aria-label={`Photograph of ${label.toLowerCase()}, ${when(each.added_at)}`}
          onClick={() => setOpen(each)}
          className="h-14 w-14 shrink-0 overflow-hidden border border-ink bg-sunk"
        >
          <img
            src={api.photoAt(sheet.id, each.id, true)}
            alt=""
            loading="lazy"
            className="h-full w-full object-cover"
          />
        </button>
      ))}
      {reads && <ReadPhoto about={about} label={label} reads={reads} weighIn={weighIn} visit={visit} big={big} />}
      {!viewing && (
        <label
          className={`inline-flex cursor-pointer items-center gap-2 font-cond font-semibold has-focus-visible:outline-2 ${big && !reads ? "min-h-13 w-full justify-center border border-ink text-[1.1875rem]" : "min-h-11 text-[1rem] underline underline-offset-2"}`}
        >
          <input type="file" accept="image/jpeg,image/png,image/webp" className="sr-only" onChange={take} />
          {mine.length + waiting.length
            ? "another photograph"
            : `photograph ${big || named ? `${label[0]?.toLowerCase()}${label.slice(1)}` : "it"}`}
        </label>
      )}
      {waiting.length > 0 && <span className="text-[0.875rem] text-soft">{waiting.length} on its way</span>}
      <Slip open={open !== null} onOpenChange={close} title={label} wide quiet>
        {open && reading && reads && <Reading photo={open.id} label={label} reads={reads} onClose={close} />}
        {open && !reading && (
          <>
            <img
              src={api.photoAt(sheet.id, open.id, false)}
              alt={`${label}, as photographed ${when(open.added_at)}`}
              width={open.width}
              height={open.height}
              className="h-auto max-h-[64vh] w-full object-contain"
            />
            <div className="mt-2 flex flex-wrap items-center justify-between gap-3 text-[0.9375rem] text-soft">
              Added {when(open.added_at)}
              {!viewing && reads && (
                <Button strong onClick={() => setReading(true)}>
                  Read its figures
                </Button>
              )}
              {!viewing && (
                <Button onClick={() => (asked ? void drop(open) : setAsked(true))}>
                  {asked ? "Take it away for good" : "Take it away"}
                </Button>
              )}
            </div>
          </>
        )}
      </Slip>
    </div>
  );
}
