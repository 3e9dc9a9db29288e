import { useQuery } from "@tanstack/react-query";
import { api } from "../api/client";
import { useDesk } from "../api/useSheet";
import { capital, percent } from "../format";
import { Choice } from "../ui/controls";
import { Field } from "../ui/Field";
import { TermMark } from "../ui/Glossary";
import { ChoiceLine, More, Plate } from "./Plate";

/** How much of each rating to use, and which tongue share to aim at: schools differ, the owner chooses. */
export function PolicyPlate() {
  const { rig, change, evaluation } = useDesk();
  const words = useQuery({ queryKey: ["words"], queryFn: api.words, staleTime: Number.POSITIVE_INFINITY });
  const school = rig.policy?.school ?? "plate";
  const row = evaluation.checks.find((check) => check.id === "tongue.share");
  const [low, high] = [row?.low ?? 0, row?.high ?? 0];
  const shares = (words.data?.shares ?? []).filter((each) => each.kinds.includes(rig.kind));
  const chosen = shares.find((each) => Math.abs(each.low - low) < 1e-9 && Math.abs(each.high - high) < 1e-9);
  const cushions = Object.keys(rig.policy?.cushions ?? {});
  const limited = evaluation.checks.filter((check) => check.limit !== undefined);
  return (
    <Plate title="Your own rules" part="policy">
      <ChoiceLine label="Use of the ratings" term="cushion">
        <Choice
          label="Use of the ratings"
          value={school}
          options={[
            ["plate", "all of them"],
            ["cushion", "with a cushion"],
          ]}
          onChange={(value) => change([{ path: "policy.school", op: "set", value }], "use of the ratings")}
        />
        <p className="w-full text-[0.8125rem] leading-snug text-soft">
          {words.data?.cushions.find((each) => each.code === school)?.reasons} Over a rating is over in either case.
        </p>
      </ChoiceLine>
      <More title="Your own figure for each limit" filled={cushions.length > 0}>
        <p className="text-[0.8125rem] leading-snug text-soft">
          The share of a rating that you want to use, for instance 90 %. Past it a check reads “too close”.
        </p>
        {limited.map((check) => (
          <Field
            key={check.id}
            path={`policy.cushions.${check.id}`}
            label={check.label}
            hint={`in use: ${percent(check.cushion ?? 1)} %`}
          />
        ))}
      </More>
      {row && (
        <>
          <p className="pt-2 text-[0.9375rem]">
            {capital(evaluation.terms.tongue_share ?? "")} aimed at
            <TermMark term="tongue_share" name={evaluation.terms.tongue_share ?? "tongue share"} />
          </p>
          <ul className="mb-1">
            {shares.map((each) => (
              <li key={each.code}>
                <label className="flex cursor-pointer gap-2 border-b border-rule py-1 text-[0.9375rem]">
                  <input
                    type="radio"
                    name="share-school"
                    className="mt-0.5 h-5 w-5 shrink-0 accent-[var(--ink)]"
                    checked={chosen?.code === each.code}
                    onChange={() =>
                      change(
                        [{ path: "policy.tongue_share", op: "set", value: [each.low, each.high] }],
                        `${evaluation.terms.tongue_share} aimed at`,
                      )
                    }
                  />
                  <span>
                    <b className="font-cond text-[1rem]">{each.title}</b>
                    <span className="block text-[0.8125rem] leading-snug text-soft">{each.reasons}</span>
                  </span>
                </label>
              </li>
            ))}
          </ul>
          <More title="Other figures" filled={Boolean(rig.policy?.tongue_share) && !chosen}>
            <Field path="policy.tongue_share[0]" label="From" hint={`in use: ${percent(low)} %`} />
            <Field path="policy.tongue_share[1]" label="To" hint={`in use: ${percent(high)} %`} />
          </More>
        </>
      )}
      <More
        title="Reserves: tires, speed, altitude"
        filled={rig.policy?.tire_reserve != null || rig.policy?.gcwr_derate != null}
      >
        <Field path="policy.tire_reserve" label="Kept free on every tire" hint="your choice: 10 or 20 % is usual" />
        <Field
          path="policy.travel_speed"
          label="You travel at, at most"
          hint={rig.units.mass === "lb" ? "mph, as the tires' speed" : "km/h, as the tires' speed"}
        />
        {rig.trailer && (
          <Field
            path="policy.gcwr_derate"
            label={`Less ${evaluation.terms.gcwr ?? "GCWR"} for altitude`}
            hint="the maker's share: often 2 % for each 1,000 ft"
          />
        )}
      </More>
      {rig.trailer && (
        <Field
          path="policy.brakes_above"
          label="Trailer brakes required above"
          hint="local law: it differs by state and country, look it up"
          unit={rig.units.mass}
          sourced
        />
      )}
    </Plate>
  );
}
