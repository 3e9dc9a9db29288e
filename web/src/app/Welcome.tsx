import { NewRigForm, useDeleted, useImport } from "./rigs";

/** The first page of all, when there is no rig yet. */
export function Welcome() {
  const { open, input, problem } = useImport();
  const { deleted, bringBack } = useDeleted();
  return (
    <main className="mx-auto max-w-2xl px-5 py-10">
      <p className="font-cond text-[20px] font-semibold tracking-[0.12em]">NOXEL</p>
      <h1 className="mt-6 font-cond text-[38px] leading-tight font-semibold">Is the loaded rig within its ratings?</h1>
      <p className="mt-3 text-[17px] leading-relaxed">
        Copy the ratings off the labels, type the weigh tickets, read the limiting rating. Have the door sticker, the
        trailer's label and the hitch's label at hand; half of them is enough to start.
      </p>
      <h2 className="mt-8 mb-3 font-cond text-[22px] font-semibold">Start a rig</h2>
      <NewRigForm />
      <p className="mt-8 border-t border-rule pt-4">
        Or{" "}
        <button type="button" className="underline" onClick={open}>
          import a rig file
        </button>
        {input}
      </p>
      {deleted.map((each) => (
        <p key={each.id} className="mt-2">
          <button type="button" className="underline" onClick={() => void bringBack(each.id)}>
            Bring back {each.name || "an unnamed rig"}
          </button>
        </p>
      ))}
      {problem && <p className="mt-2 border-l-4 border-ink pl-2 font-semibold">{problem}</p>}
    </main>
  );
}
