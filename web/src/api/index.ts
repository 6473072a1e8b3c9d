import { client } from "./generated/client.gen";
import type { ProblemDetails } from "./generated/types.gen";

client.setConfig({ baseUrl: "", throwOnError: true });

export * from "./generated/sdk.gen";
export type * from "./generated/types.gen";

/** One thing that is wrong: the field it concerns and a sentence to show there. */
export interface FieldProblem {
  code: string;
  field: string;
  sentence: string;
}

/** Problem details as the host sends them, with the members of its own. */
export interface Trouble extends ProblemDetails {
  errors?: FieldProblem[];
  field?: string;
  current?: unknown;
  candidates?: { id: string; name: string }[];
  missingMeasure?: { foodId: string; foodName: string; measure: string } | null;
}

/** @returns what was thrown as problem details; a host that does not answer gets a sentence of its own. */
export function troubleOf(thrown: unknown, silent: string): Trouble {
  if (thrown && typeof thrown === "object" && "detail" in thrown) return thrown as Trouble;
  return { type: "urn:lively-tern:problem:no-answer", detail: silent };
}

/** @returns the sentence for a field, or undefined where nothing is wrong with it. */
export function sentenceFor(trouble: Trouble | null, field: string): string | undefined {
  return trouble?.errors?.find((problem) => problem.field === field)?.sentence;
}

/** The header that says which version a change was made on. */
export const seen = (version: number) => ({ "If-Match": `"${version}"` });
