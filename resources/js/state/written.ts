import type { components } from '../api/rule';

/* A rule file has a type, made from its schema; while it is written any part of it may still be missing. */
type Unfinished<T> = T extends readonly (infer One)[]
    ? Unfinished<One>[]
    : T extends object
      ? { [Key in keyof T]?: Unfinished<T[Key]> }
      : T;

/* An interface: its name is what an error message shows. */
export interface RuleDraft extends Unfinished<components['schemas']['RuleFile']> {}
export type ConditionDraft = Unfinished<components['schemas']['condition']>;

/** Conditions over a list, as they stand where a rule file would. */
export type FilterDraft = { filter: ConditionDraft };
