import { useQuery } from "@tanstack/react-query";
import { Link, Route, Routes } from "react-router";
import { Choice } from "../ui/controls";
import { PageFrame } from "../ui/PageFrame";
import { ChallengePlace } from "./ChallengePlace";
import { Challenges, Lessons, OpenYard } from "./HomeParts";
import { LessonPlace } from "./LessonPlace";
import { Paper } from "./Paper";
import { Part, TERMS } from "./Part";
import { Who } from "./Who";
import { YardPlace } from "./YardPlace";
import { practice, useSettings } from "./yard";

/** The practice yard: lessons, challenges, an open yard, exercises on paper. It touches no rig of one's own. */
export function Practice() {
  return (
    <Routes>
      <Route index element={<Home />} />
      <Route path="lessons/:name" element={<LessonPlace />} />
      <Route path="yard" element={<YardPlace />} />
      <Route path="challenge" element={<ChallengePlace />} />
    </Routes>
  );
}

function Home() {
  const { settings, change } = useSettings();
  const home = useQuery({
    queryKey: ["practice", settings.learner],
    queryFn: () =>
      practice.home(settings.learner).catch(() => {
        change({ learner: "" });
        return practice.home("");
      }),
  });
  const seen = home.data;
  return (
    <PageFrame name="Practice" title="Practice">
      <div className="mx-auto max-w-[70rem]">
        <h1 className="font-cond text-[2rem] leading-tight font-semibold">Learn to weigh before it counts</h1>
        <p className="mt-1 max-w-[70ch] text-[1.0625rem] leading-snug">
          A yard with a scale, and rigs whose true loads are hidden. It names the mistake behind a wrong figure. Nothing
          here touches your own rigs.
        </p>
        {home.error && (
          <p role="alert" className="mt-2 border-l-4 border-ink pl-3 font-semibold">
            {home.error.message}
          </p>
        )}
        <div className="mt-3 flex flex-wrap items-end gap-x-6 gap-y-3">
          <Choice
            label="Unit"
            value={settings.unit}
            options={[
              ["lb", "lb"],
              ["kg", "kg"],
            ]}
            onChange={(unit) => change({ unit })}
          />
          <Choice label="Terms" value={settings.terms} options={TERMS} onChange={(terms) => change({ terms })} />
        </div>
        {seen && <Who home={seen} settings={settings} change={change} />}
        {seen && seen.due.length > 0 && (
          <Part title="Comes back today">
            <ul className="flex flex-wrap gap-2">
              {seen.due.map((each) => (
                <li key={each.slip}>
                  <Link
                    to={`/practice/lessons/${each.lesson}?seed=${each.seed}`}
                    className="flex min-h-11 items-center border-l-[6px] border-ochre bg-card px-3 font-cond text-[1.0625rem] font-semibold underline underline-offset-2"
                  >
                    {each.name}
                  </Link>
                </li>
              ))}
            </ul>
          </Part>
        )}
        <div className="items-start gap-10 lg:grid lg:grid-cols-[1fr_21rem]">
          <Part title="Lessons, in the order of the work">{seen && <Lessons home={seen} />}</Part>
          <div>
            <Challenges today={seen?.today ?? ""} settings={settings} />
            <OpenYard settings={settings} />
            {seen && <Paper home={seen} settings={settings} />}
          </div>
        </div>
      </div>
    </PageFrame>
  );
}
