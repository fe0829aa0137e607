/** In: a process's files, and what a report says of its plan. Out: the same files, each telling it with what it says of itself. */
import type { ProcessFile } from './process.ts';

export const withReports = <Settings, Plan>(
  files: Readonly<Record<string, ProcessFile<Settings, Plan>>>,
  reportOf: (plan: Plan) => Readonly<Record<string, unknown>>,
): Record<string, ProcessFile<Settings, Plan>> =>
  Object.fromEntries(
    Object.entries(files).map(([name, file]): [string, ProcessFile<Settings, Plan>] => [
      name,
      {
        ...file,
        make: async (work, plan, choices) => {
          const made = await file.make(work, plan, choices);
          return { ...made, report: { ...reportOf(plan), ...made.report } };
        },
      },
    ]),
  );
