import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, type Reminder } from "../api/client";
import { useDesk } from "../api/useSheet";
import { day } from "../format";
import { Button } from "../ui/controls";
import { Field } from "../ui/Field";

function useReminders() {
  const { sheet } = useDesk();
  const found = useQuery({
    queryKey: ["reminders", sheet.id, sheet.saved_at],
    queryFn: () => api.reminders(sheet.id),
    placeholderData: keepPreviousData,
  });
  return found.data ?? [];
}

/** What is due now, a line each; nothing when nothing is. */
export function DueNow() {
  const due = useReminders().filter((each) => each.state === "due");
  return (
    <ul className="min-w-0 flex-1 max-md:basis-full" aria-label="Due now">
      {due.map((each) => (
        <Line key={each.key} reminder={each} />
      ))}
    </ul>
  );
}

/** Reminders: weighing again, tires, trips; set here, shown here and in the calendar that it is exported to. */
export function Reminders() {
  const { sheet, rig } = useDesk();
  const [setting, setSetting] = useState(false);
  const all = useReminders();
  return (
    <section aria-label="Reminders" className="mt-8">
      <div className="flex flex-wrap items-end justify-between gap-2 border-b border-ink pb-1">
        <h2 className="font-cond text-[1.375rem] font-semibold">Reminders</h2>
        <div className="no-print flex gap-2">
          {all.some((each) => each.due && each.state !== "done") && (
            <a
              className="flex min-h-10 items-center border border-ink px-3 font-cond text-[1.0625rem] font-semibold hover:bg-sunk"
              href={`/api/rigs/${sheet.id}/reminders.ics`}
            >
              Into a calendar
            </a>
          )}
          <Button aria-expanded={setting} onClick={() => setSetting(!setting)}>
            {setting ? "Done" : "Set reminders"}
          </Button>
        </div>
      </div>
      {all.length === 0 && !setting && (
        <p className="py-2 text-[0.9375rem] text-soft">
          None yet: weigh again after so many months, after so much was added, before a trip; tires by their age.
        </p>
      )}
      <ul>
        {all.map((each) => (
          <Line key={each.key} reminder={each} />
        ))}
      </ul>
      {setting && (
        <div className="mt-2 max-w-[44rem] border-l-4 border-ink pl-3">
          <Field path="reminders.months" label="Weigh again after" unit="months" />
          <Field path="reminders.added" label="Weigh again after changes of more than" unit={rig.units.mass} />
          <Field path="reminders.tire_years" label="Tires, at the age of" unit="years" hint="by their date codes" />
          <Trips />
        </div>
      )}
    </section>
  );
}

function Line({ reminder }: { reminder: Reminder }) {
  const words = { due: "due", coming: "coming", done: "done" }[reminder.state];
  return (
    <li data-reminder={reminder.cause} data-state={reminder.state} className="flex gap-3 border-b border-rule py-1.5">
      <span
        className={`mt-0.5 h-fit w-[4.6rem] shrink-0 border px-1 text-center font-cond text-[0.9375rem] ${
          reminder.state === "due"
            ? "border-ink bg-ink font-semibold text-paper"
            : reminder.state === "done"
              ? "border-rule text-soft"
              : "border-ink"
        }`}
      >
        {words}
      </span>
      <span className="min-w-0 leading-snug">
        <b className="font-cond text-[1.125rem]">{reminder.title}</b>
        {reminder.due && reminder.state !== "done" && (
          <span className="font-cond text-[1.0625rem]">
            {reminder.cause === "trip" ? ", from " : reminder.state === "due" ? ", since " : ", by "}
            {day(reminder.due)}
          </span>
        )}
        <span className="text-[0.9375rem] max-md:block md:ml-3">{reminder.sentence}</span>
      </span>
    </li>
  );
}

function Trips() {
  const { rig, change } = useDesk();
  const [date, setDate] = useState("");
  const [name, setName] = useState("");
  const trips = rig.reminders?.trips ?? [];
  return (
    <div className="py-1.5">
      <p className="text-[0.9375rem]">Trips to weigh before</p>
      {trips.map((trip, index) => (
        <p
          key={`${trip.date} ${trip.name}`}
          className="flex items-baseline gap-3 border-b border-rule py-1 text-[0.9375rem]"
        >
          <span className="flex-1">
            {day(trip.date)}
            {trip.name ? `, ${trip.name}` : ""}
          </span>
          <button
            type="button"
            className="font-cond text-[0.875rem] underline"
            onClick={() => change([{ path: `reminders.trips[${index}]`, op: "remove" }], "take out a trip")}
          >
            take out
          </button>
        </p>
      ))}
      <form
        className="mt-1 flex flex-wrap items-center gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          if (!date) return;
          const value = { date, ...(name.trim() ? { name: name.trim() } : {}) };
          change([{ path: `reminders.trips[${trips.length}]`, op: "insert", value }], "add a trip");
          setDate("");
          setName("");
        }}
      >
        <input
          type="date"
          aria-label="Day the trip starts"
          className="h-10 border border-edge bg-card px-2 text-[1rem]"
          value={date}
          onChange={(event) => setDate(event.currentTarget.value)}
        />
        <input
          aria-label="Name of the trip"
          placeholder="where to"
          maxLength={200}
          className="h-10 min-w-40 flex-1 border border-edge bg-card px-2 text-[1rem]"
          value={name}
          onChange={(event) => setName(event.currentTarget.value)}
        />
        <Button type="submit" disabled={!date}>
          Add the trip
        </Button>
      </form>
    </div>
  );
}
