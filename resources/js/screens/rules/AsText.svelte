<script lang="ts">
    import { onMount, untrack } from 'svelte';
    import { api, ask, said, type Resources } from '../../api/client';
    import Confirm from '../../parts/Confirm.svelte';
    import RuleTextBox from '../../parts/RuleTextBox.svelte';
    import type { Document } from '../../state/document.svelte';
    import type { RuleDraft } from '../../state/written';
    import { toasts } from '../../state/toasts.svelte';

    let { page, may, onclose }: { page: Document; may: boolean; onclose: () => void } = $props();
    let text = $state('');
    let misread = $state.raw<Resources['MisreadingResource'][]>([]);
    let busy = $state(true);
    let box = $state<ReturnType<typeof RuleTextBox>>();

    onMount(async () => {
        text = (await ask(api.POST('/api/text/print', { body: { file: untrack(() => page.file) } }))).text;
        busy = false;
    });

    $effect(() => {
        const typed = text;
        const timer = setTimeout(async () => {
            const read = await ask(api.POST('/api/text/rule', { body: { text: typed, on: page.type } })).catch(() => null);
            if (read && typed === text) misread = read.misread;
        }, 300);
        return () => clearTimeout(timer);
    });

    async function take() {
        busy = true;
        try {
            const read = await ask(api.POST('/api/text/rule', { body: { text, on: page.type } }));
            misread = read.misread;
            if (read.file) {
                const file = read.file as RuleDraft;
                if (file.on !== page.type) {
                    toasts.complain('A rule stays with its record type. Start a new rule for other records.');
                } else {
                    // A page without conditions has an empty group of them, so that one can be added.
                    await page.edit((old) => {
                        for (const key of Object.keys(old) as (keyof RuleDraft)[]) delete old[key];
                        Object.assign(old, { onlyIf: { kind: 'all', of: [] } }, file);
                    });
                    onclose();
                }
            }
        } catch (thrown) {
            toasts.complain(said(thrown));
        }
        busy = false;
    }

    async function copy() {
        await navigator.clipboard.writeText(text);
        toasts.tell('The text is on the clipboard.');
    }

    /** Takes the caret to a word that is not understood. */
    function find(wrong: Resources['MisreadingResource']) {
        const lines = text.split('\n');
        const start = lines.slice(0, wrong.line - 1).reduce((sum, line) => sum + line.length + 1, 0) + wrong.position;
        box?.select(start, start + wrong.word.length);
    }
</script>

<Confirm title="The rule as text" go={may ? 'Use this text' : 'Close'} {busy} onconfirm={may ? take : onclose} {onclose} wide>
    <RuleTextBox bind:this={box} bind:text readonly={!may} label="The rule as text" on={page.type} />
    <div class="min-h-[40px] text-[12.5px]" aria-live="polite" data-misread={misread.length}>
        {#each misread.slice(0, 4) as wrong (wrong.line)}
            <button type="button" class="block text-left hover:text-iris" onclick={() => find(wrong)}
                ><span class="figures mr-2 text-madder">line {wrong.line}</span>{wrong.message}</button
            >
        {:else}
            <span class="text-fern">✓</span> understood
        {/each}
    </div>
    <p class="mini">
        One sentence a line, as they read on the page; <kbd>Tab</kbd> takes what is offered. Copy it, and paste it into another company.
        <button type="button" class="link" onclick={copy}>Copy</button>
    </p>
</Confirm>
