import { useState } from "react";

export type Attempt = ReturnType<typeof useAttempt>["attempt"];

/** Tries what may be refused; `problem` says why it was, until it is tried again and works. */
export function useAttempt() {
  const [problem, setProblem] = useState<string | null>(null);
  const attempt = <T,>(asked: Promise<T>, then?: (answer: T) => unknown) =>
    asked.then(
      (answer) => {
        setProblem(null);
        return then?.(answer);
      },
      (error: Error) => setProblem(error.message),
    );
  return { problem, attempt };
}

/** Why something was refused. */
export function Refused({ problem, className = "mt-2" }: { problem: string | null | undefined; className?: string }) {
  if (!problem) return null;
  return (
    <p role="alert" className={`border-l-4 border-ink pl-2 font-semibold ${className}`}>
      {problem}
    </p>
  );
}
