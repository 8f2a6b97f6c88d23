<script lang="ts">
    import { Input } from 'flowbite-svelte';
    import { onMount } from 'svelte';
    import type { AnyDocument } from '../../state/document.svelte';
    import { ahead } from '../ahead';
    import Choose from '../Choose.svelte';
    import { mergeOptions } from '../offers';
    import type { Editor, Word } from '../words';
    import Area from '../fields/Area.svelte';

    /* A line of text, or several; where the text allows it, with fields merged into it. */
    type Props = { document: AnyDocument; word: Word; editor: Editor; at: string; onclose: () => void };
    let { document: page, word, editor, at, onclose }: Props = $props();
    const most = $derived(editor.most ?? null);
    // svelte-ignore state_referenced_locally
    let typed = $state(String(page.at(at) ?? ''));
    let line = $state<HTMLInputElement>();
    let lines = $state<HTMLTextAreaElement>();
    const input = $derived(line ?? lines);
    let merging = $state(false);
    onMount(() => {
        const [early = '', ...enters] = ahead.take().split('\n');
        if (early) typed = early;
        if (early && enters.length && !editor.isLong) done();
    });

    function merge(path: string | undefined) {
        const where = input?.selectionStart ?? typed.length;
        typed = `${typed.slice(0, where)}{${path}}${typed.slice(input?.selectionEnd ?? where)}`;
        merging = false;
        input?.focus();
    }

    /** The key that ends it is spent: on the word, which has the focus next, it would open it again. */
    function done(event?: Event) {
        event?.preventDefault();
        const text = typed.trim();
        void page.put(at, text === '' && editor.mayBeEmpty ? undefined : text);
        onclose();
    }
</script>

<form class="w-[380px]" onsubmit={done}>
    <div class="flex items-baseline px-4 pt-3">
        <label class="text-[12.5px] text-ink-2" for="title">{editor.label}</label>
        {#if most !== null}<span class="figures mini ml-auto" class:text-madder={typed.length > most}>{typed.length} / {most}</span>{/if}
    </div>
    <div class="px-4 pt-1 pb-2">
        {#if editor.isLong}
            <Area
                id="title"
                class="h-24"
                bind:elementRef={lines}
                bind:value={typed}
                onkeydown={(event) => event.key === 'Enter' && (event.ctrlKey || event.metaKey) && done(event)}
                autofocus
            />
        {:else}
            <Input id="title" bind:elementRef={line} bind:value={typed} autocomplete="off" autofocus />
        {/if}
        {#if editor.merges}<button type="button" class="btn quiet mt-1" onclick={() => (merging = !merging)}>+ merge a field</button>{/if}
    </div>
    {#if merging}
        <div class="border-t border-ruled">
            <Choose title="Merge" options={mergeOptions(word.on)} onchoose={([path]) => merge(path)} onclose={() => (merging = false)} />
        </div>
    {/if}
    <div class="keys">
        <span><kbd>{editor.isLong ? 'Ctrl Enter' : 'Enter'}</kbd>done</span><span><kbd>Esc</kbd>close</span><button class="link ml-auto"
            >Done</button
        >
    </div>
</form>
