<script lang="ts">
    import { Input } from 'flowbite-svelte';
    import { onMount } from 'svelte';
    import type { AnyDocument } from '../../state/document.svelte';
    import { ahead } from '../ahead';
    import { shownNumber, typedNumber } from '../../state/numbers';
    import type { Editor } from '../words';

    /* A number; one that is no whole number by its nature is kept as it is written. */
    type Props = { document: AnyDocument; editor: Editor; at: string; onclose: () => void; onother: () => void };
    let { document: page, editor, at, onclose, onother }: Props = $props();
    // svelte-ignore state_referenced_locally
    const given = page.at(at);
    let typed = $state(typeof given === 'string' || typeof given === 'number' ? shownNumber(String(given)) : '');
    onMount(() => {
        const [early = '', ...enters] = ahead.take().split('\n');
        if (early) typed = early;
        if (early && enters.length) done();
    });

    function done(event?: SubmitEvent) {
        event?.preventDefault();
        if (typed.trim() === '') return;
        const number = typedNumber(typed.trim());
        void page.put(at, editor.isWhole ? Number(number) : number);
        onclose();
    }
</script>

<form class="w-[280px]" onsubmit={done}>
    <div class="px-4 py-3">
        <Input class="figures" inputmode="decimal" aria-label="Number" bind:value={typed} autofocus />
    </div>
    <div class="keys">
        <span><kbd>Enter</kbd>done</span>
        {#if editor.others}<button type="button" class="link ml-auto" onclick={onother}>A field instead…</button>{/if}
        <button class="link {editor.others ? '' : 'ml-auto'}">Done</button>
    </div>
</form>
