<script lang="ts">
    import { tick, untrack } from 'svelte';
    import { api, ask, said, type Resources } from '../api/client';
    import { Document } from '../state/document.svelte';
    import type { Json, JsonObject } from '../state/pointer';
    import type { ConditionDraft, FilterDraft } from '../state/written';
    import { session } from '../state/session.svelte';
    import { toasts } from '../state/toasts.svelte';
    import Floating from './Floating.svelte';
    import Say from './Say.svelte';
    import Sentence from './Sentence.svelte';
    import WordEditor from './editors/WordEditor.svelte';
    import type { Word } from './words';
    import { say } from '../state/words';

    /* Conditions over a list, as a sentence. Only what is finished narrows the list. */
    type Props = { type: string; filter: ConditionDraft | null; onchange: (filter: ConditionDraft | null) => void };
    let { type, filter, onchange }: Props = $props();
    let open = $state<{ anchor: HTMLElement; word: Word } | null>(null);
    let bar = $state<HTMLDivElement>();
    let typing = $state(false);

    const empty: Resources['ReadingResource'] = { rows: [], problems: [], aloud: '' };
    const page = new Document<FilterDraft>(
        untrack(() => type),
        { filter: grouped(untrack(() => filter)) },
        empty,
        { keep, failed: (thrown) => toasts.complain(said(thrown)) },
        true,
    );
    void read(page.file).then((reading) => (page.reading = reading));

    /** A single condition, or any of several, stands among those that all have to hold. */
    function grouped(conditions: ConditionDraft | null): ConditionDraft {
        return conditions?.kind === 'all' ? conditions : { kind: 'all', of: conditions ? [conditions] : [] };
    }

    function read({ filter: conditions }: FilterDraft): Promise<Resources['ReadingResource']> {
        return ask(api.POST('/api/records/{type}/filter', { params: { path: { type } }, body: { filter: conditions } }));
    }

    async function keep(file: FilterDraft): Promise<Resources['ReadingResource']> {
        const reading = await read(file);
        const { filter: conditions } = file;
        if (!reading.problems.length) onchange('of' in conditions && conditions.of?.length ? conditions : null);
        return reading;
    }

    /** An example with words of the type itself. */
    const example = $derived.by(() => {
        const { fields } = session.type(type);
        const choice = fields.find((field) => field.choices.length > 1);
        const others = fields.filter((field) => field.type === 'date').map((field) => `${field.label} is empty`);
        return [choice ? [`${choice.label} is ${choice.choices[0]?.label ?? ''}`] : [], others[0] ?? []].flat().join(say(' and '));
    });

    type Row = Resources['RowResource'];
    type Branch = { row: Row; below: Branch[] };
    /** Rows come as they are read aloud: what is deeper stands below the group before it. */
    const branches = $derived.by(() => {
        const top: Branch[] = [];
        const path: Branch[] = [];
        for (const row of page.reading.rows) {
            const branch = { row, below: [] };
            path.splice(row.depth);
            (path.at(-1)?.below ?? top).push(branch);
            path[row.depth] = branch;
        }
        return top[0]?.below ?? [];
    });
    const joins = (group: string) => ({ any: 'or', none: 'nor' })[page.at(`${group}/kind`) as string] ?? 'and';

    function edit(word: Word, anchor: HTMLElement) {
        if (word.editor?.sort === 'begin') void page.put(word.at ?? '', structuredClone((word.editor.begins ?? {}) as Json));
        else open = { anchor, word };
    }

    async function add() {
        const index = ((page.at('/filter/of') as unknown[]) ?? []).length;
        await page.append('/filter/of', {});
        bar?.querySelector<HTMLElement>(`[data-word^="/filter/of/${index}/"]`)?.click();
    }

    async function typeOne() {
        typing = !typing;
        await tick();
        if (typing) bar?.querySelector('textarea')?.focus();
    }

    /** What is typed stands behind what is there. */
    async function take(said: JsonObject) {
        const more = said.kind === 'all' ? (said.of as Json[]) : [said];
        await page.put('/filter/of', [...((page.at('/filter/of') as Json[]) ?? []), ...more]);
        typing = false;
    }
</script>

{#snippet condition({ row, below }: Branch)}
    <span class="inline-flex items-center gap-1">
        <Sentence
            words={row.words}
            problems={page.reading.problems}
            onedit={edit}
            editing={open ? `${open.word.at}|${open.word.editor?.sort}` : null}
        />
        {#if row.part === 'group'}
            <span class="text-ink-2">(</span>{@render list(below, joins(row.at))}<span class="text-ink-2">)</span>
        {/if}
        <button type="button" class="mini hover:text-madder" aria-label="Remove this condition" onclick={() => page.remove(row.at)}
            >×</button
        >
    </span>
{/snippet}

{#snippet list(some: Branch[], join: string)}
    {#each some as branch, index (branch.row.at)}
        {#if index > 0}<span class="text-ink-2">{join}</span>{/if}
        {@render condition(branch)}
    {/each}
{/snippet}

<div bind:this={bar} class="flex flex-wrap items-center gap-x-2 gap-y-1 text-[13px]">
    {#if branches.length}<span class="text-ink-2">Only</span>{/if}
    {@render list(branches, 'and')}
    <button type="button" class="ghost" onclick={add}>+ condition</button>
    <button type="button" class="ghost" aria-expanded={typing} onclick={typeOne}>type one</button>
    {#if typing}
        <div class="basis-full" data-typed>
            <Say
                label="Type a condition"
                placeholder={example}
                read={(text) => ask(api.POST('/api/records/{type}/filter/text', { params: { path: { type } }, body: { text } }))}
                {take}
                takes="narrows the list"
                class="text-[13px]"
            />
        </div>
    {/if}
</div>

{#if open}
    <Floating anchor={open.anchor} label="Change this word" onclose={() => (open = null)}>
        <WordEditor document={page} word={open.word} onclose={() => (open = null)} />
    </Floating>
{/if}
