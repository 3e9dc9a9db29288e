import { type ReactNode, useState } from "react";
import { NavLink, useParams } from "react-router";
import { Choice } from "../ui/controls";
import { PageFrame } from "../ui/PageFrame";
import { lastTerms, useSay } from "../ui/useSay";
import { CONSEQUENCES, ORDER, type Topic, TRAPS } from "./topics";

const PAGES = [
  {
    id: "order",
    name: "The order of work",
    lead: "From the labels to the record, in the order that saves a second trip.",
    topics: ORDER,
  },
  { id: "traps", name: "Traps", lead: "Figures that look right and are not. Each is heard every week.", topics: TRAPS },
  {
    id: "why",
    name: "Why it matters",
    lead: "What too much weight does, and why the last hundred pounds are not spare.",
    topics: CONSEQUENCES,
  },
] as const;

/** A short help in three pages, found by words. */
export function Help() {
  const { page } = useParams();
  const [terms, setTerms] = useState(lastTerms);
  const say = useSay(terms);
  const [words, setWords] = useState("");
  const here = PAGES.find((each) => each.id === page) ?? PAGES[0];
  const asked = words.trim().toLowerCase().split(/\s+/).filter(Boolean);
  const hits = PAGES.flatMap((each) =>
    each.topics.filter((topic) => asked.every((word) => `${textOf(topic)} ${say(textOf(topic))}`.includes(word))),
  );
  return (
    <PageFrame
      name="Help"
      title={here.name}
      beside={
        <nav aria-label="Help pages" className="flex flex-wrap gap-x-4">
          {PAGES.map((each) => (
            <NavLink
              key={each.id}
              to={`/help/${each.id}`}
              aria-current={each.id === here.id ? "page" : undefined}
              className={`flex min-h-11 items-center font-cond text-[1.0625rem] ${each.id === here.id ? "border-b-2 border-ink font-semibold" : "underline underline-offset-2"}`}
            >
              {each.name}
            </NavLink>
          ))}
        </nav>
      }
    >
      <div className="mx-auto max-w-[62rem]">
        <h1 className="font-cond text-[2rem] leading-tight font-semibold">
          {asked.length ? "Found in the help" : here.name}
        </h1>
        {!asked.length && <p className="mt-1 text-[1.0625rem] leading-snug">{here.lead}</p>}
        <input
          type="search"
          aria-label="Search the help"
          placeholder="Search the help: tongue, bars, payload…"
          className="mt-3 h-11 w-full max-w-xl border border-edge bg-card px-2 text-[1rem]"
          value={words}
          onChange={(event) => setWords(event.currentTarget.value)}
        />
        <div className="mt-3">
          <Choice
            label="In the words of"
            value={terms}
            options={[
              ["north_america", "North America"],
              ["australia", "Australia, NZ"],
              ["europe", "Europe, UK"],
            ]}
            onChange={setTerms}
          />
        </div>
        <p role="status" className="mt-1 text-[0.875rem] text-soft">
          {asked.length ? `${hits.length} of ${PAGES.reduce((sum, each) => sum + each.topics.length, 0)} topics` : ""}
        </p>
        <Topics topics={asked.length ? hits : here.topics} say={say} />
        <p className="mt-6 border-t border-rule pt-3 text-[0.875rem] leading-snug text-soft">
          Noxel compares figures that you entered with ratings that you entered. The makers' manuals, local law and a
          qualified technician come first.
        </p>
      </div>
    </PageFrame>
  );
}

function Topics({ topics, say }: { topics: readonly Topic[]; say: (text: string) => string }) {
  return (
    <div className="mt-3">
      {topics.map((each) => (
        <article
          key={each.title}
          className="items-start gap-8 border-t border-rule py-4 md:grid md:grid-cols-[1fr_19rem]"
        >
          <div className="max-w-[62ch]">
            <h2 className="font-cond text-[1.375rem] leading-tight font-semibold">{say(each.title)}</h2>
            {each.says.map((line) => (
              <p key={line} className="mt-1.5 text-[1.0625rem] leading-snug">
                {say(line)}
              </p>
            ))}
            {each.instead && (
              <p className="mt-1.5 border-l-4 border-spruce pl-3 text-[1.0625rem] leading-snug">
                <b>Instead:</b> {say(each.instead)}
              </p>
            )}
          </div>
          {each.picture && <Frame>{each.picture}</Frame>}
        </article>
      ))}
    </div>
  );
}

const Frame = ({ children }: { children: ReactNode }) => (
  <div className="mt-3 border border-rule bg-card p-2 md:mt-0">{children}</div>
);

const textOf = (topic: Topic) => [topic.title, ...topic.says, topic.instead ?? ""].join(" ").toLowerCase();
