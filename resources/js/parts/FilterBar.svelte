<script lang="ts">
    import { untrack } from 'svelte';
    import { api, ask, said, type Shapes } from '../api/client';
    import { Document } from '../state/document.svelte';
    import type { Json } from '../state/pointer';
    import type { ConditionDraft, FilterDraft } from '../state/written';
    import { toasts } from '../state/toasts.svelte';
    import Floating from './Floating.svelte';
    import Sentence from './Sentence.svelte';
    import WordEditor from './editors/WordEditor.svelte';
    import type { Word } from './words';

    /* Conditions over a list, as a sentence. Only what is finished narrows the list. */
    type Props = { type: string; filter: ConditionDraft | null; onchange: (filter: ConditionDraft | null) => void };
    let { type, filter, onchange }: Props = $props();
    let open = $state<{ anchor: HTMLElement; word: Word } | null>(null);
    let bar = $state<HTMLDivElement>();

    const empty: Shapes['ReadingShape'] = { rows: [], problems: [], aloud: '' };
    const page = new Document<FilterDraft>(
        untrack(() => type),
        { filter: untrack(() => filter) ?? { kind: 'all', of: [] } },
        empty,
        { keep: read, failed: (thrown) => toasts.complain(said(thrown)) },
        true,
    );
    void read(page.file).then((reading) => (page.reading = reading));

    async function read({ filter: conditions }: FilterDraft): Promise<Shapes['ReadingShape']> {
        const reading = await ask(api.POST('/api/records/{type}/filter', { params: { path: { type } }, body: { filter: conditions } }));
        if (!reading.problems.length) onchange('of' in conditions && conditions.of?.length ? conditions : null);
        return reading;
    }

    const conditions = $derived(page.reading.rows.filter((row) => row.part === 'condition'));

    function edit(word: Word, anchor: HTMLElement) {
        if (word.editor?.sort === 'begin') void page.put(word.at ?? '', structuredClone((word.editor.begins ?? {}) as Json));
        else open = { anchor, word };
    }

    async function add() {
        const index = ((page.at('/filter/of') as unknown[]) ?? []).length;
        await page.append('/filter/of', {});
        bar?.querySelector<HTMLElement>(`[data-word^="/filter/of/${index}/"]`)?.click();
    }
</script>

<div bind:this={bar} class="flex flex-wrap items-center gap-x-2 gap-y-1 text-[13px]">
    {#if conditions.length}<span class="text-ink-2">Only</span>{/if}
    {#each conditions as row, index (row.at)}
        {#if index > 0}<span class="text-ink-2">and</span>{/if}
        <span class="inline-flex items-center gap-1">
            <span>
                <Sentence
                    words={row.words}
                    problems={page.reading.problems}
                    onedit={edit}
                    editing={open ? `${open.word.at}|${open.word.editor?.sort}` : null}
                />
            </span>
            <button type="button" class="mini hover:text-madder" aria-label="Remove this condition" onclick={() => page.remove(row.at)}
                >×</button
            >
        </span>
    {/each}
    <button type="button" class="ghost" onclick={add}>+ condition</button>
</div>

{#if open}
    <Floating anchor={open.anchor} label="Change this word" onclose={() => (open = null)}>
        <WordEditor document={page} word={open.word} onclose={() => (open = null)} />
    </Floating>
{/if}
