/** One thing to choose. */
export type Option = {
    key: string;
    label: string;
    hint?: string;
    /** A heading above the first option that has it. */
    group?: string;
    tone?: string;
};
