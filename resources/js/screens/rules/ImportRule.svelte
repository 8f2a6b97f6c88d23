<script lang="ts">
    import { Modal } from 'flowbite-svelte';
    import { useQueryClient } from '@tanstack/svelte-query';
    import { api, ask, Refusal, said } from '../../api/client';
    import { go } from '../../router';
    import { toasts } from '../../state/toasts.svelte';
    import Area from '../../parts/fields/Area.svelte';
    import FileButton from '../../parts/fields/FileButton.svelte';

    let { onclose }: { onclose: () => void } = $props();
    const client = useQueryClient();
    let open = $state(true);
    let text = $state('');
    let refusal = $state<Refusal | null>(null);
    let busy = $state(false);
    $effect(() => {
        if (!open) onclose();
    });

    async function take(file: File) {
        text = await file.text();
        refusal = null;
    }

    async function bringIn() {
        busy = true;
        refusal = null;
        try {
            const rule = await ask(api.POST('/api/rules/import', { body: { text } }));
            await client.invalidateQueries({ queryKey: ['rules'] });
            toasts.tell(`“${rule.name}” is here as a draft.`);
            open = false;
            go(`/rules/${rule.id}`);
        } catch (thrown) {
            if (thrown instanceof Refusal) refusal = thrown;
            else toasts.complain(said(thrown));
        }
        busy = false;
    }
</script>

<Modal bind:open size="sm" dismissable={false} classes={{ body: 'p-6 space-y-3' }}>
    <h2 class="text-lg">Import a rule</h2>
    <p class="text-[13.5px] text-ink-2">Choose a rule file, or paste its text. It arrives as a draft; nothing is put in force.</p>
    <div><FileButton says="Choose a rule file" accept=".json,application/json" onchoose={take} /></div>
    <Area
        class="figures h-48 text-[12px]"
        aria-label="Text of the rule file"
        bind:value={text}
        placeholder={'{ "format": "vivid-ledger/rule/1", … }'}
    />
    {#if refusal}
        <div class="callout bad" role="alert">
            <b>{refusal.message}</b>
            <ul class="mt-1">
                {#each refusal.problem.problems as problem, index (index)}
                    <li>
                        <span class="figures">line {(problem as { line?: number }).line ?? 1}</span>
                        {problem.message} <span class="figures mini">{problem.at}</span>
                    </li>
                {/each}
            </ul>
        </div>
    {/if}
    <div class="flex justify-end gap-2 pt-1">
        <button type="button" class="btn" onclick={() => (open = false)}>Cancel</button>
        <button type="button" class="btn go" disabled={busy || text.trim() === ''} onclick={bringIn}>Import as a draft</button>
    </div>
</Modal>
