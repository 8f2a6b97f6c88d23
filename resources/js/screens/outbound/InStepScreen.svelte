<script lang="ts">
    import { createQuery, useQueryClient } from '@tanstack/svelte-query';
    import { api, ask, said, type Resources } from '../../api/client';
    import Stamp from '../../parts/Stamp.svelte';
    import { crumbs } from '../../state/crumbs.svelte';
    import { toasts } from '../../state/toasts.svelte';
    import { counted, say } from '../../state/words';

    /* Whether the accounting system and we say the same of our customers, each difference with a way to mend it. */
    crumbs.set({ label: 'Setup', to: '/setup' }, { label: 'Compare with accounting' });
    type Difference = Resources['DifferenceResource'];
    const client = useQueryClient();
    const step = createQuery(() => ({ queryKey: ['in-step'], queryFn: () => ask(api.GET('/api/in-step')), retry: false }));
    let busy = $state(false);
    const LABELS: Record<Difference['kind'], string> = {
        differs: say('differs'),
        missing_there: 'not there',
        missing_here: 'not here',
    };

    type Way = 'ours' | 'theirs' | 'forget';
    async function mend(one: Difference, way: Way) {
        if (one.recordId === null) return;
        busy = true;
        try {
            await ask(api.POST('/api/in-step/mend', { body: { recordId: one.recordId, way } }));
            toasts.tell('Corrected.');
        } catch (thrown) {
            toasts.complain(said(thrown));
        }
        busy = false;
        void client.invalidateQueries({ queryKey: ['in-step'] });
    }
</script>

{#snippet way(one: Difference, by: Way, label: string)}
    <button type="button" class="btn" disabled={busy} onclick={() => void mend(one, by)}>{label}</button>
{/snippet}

<div class="spread">
    <section class="leaf solo">
        <header class="flex items-start gap-3">
            <div>
                <h1>Compare with accounting</h1>
                <p class="sub">
                    {#if step.isError}{said(step.error)}
                    {:else if !step.data}Comparing with the accounting system…
                    {:else if step.data.length === 0}The accounting system and we say the same of every customer.
                    {:else}{counted(step.data.length, [
                            '# difference between the accounting system and us',
                            '# differences between the accounting system and us',
                        ])}{/if}
                </p>
            </div>
            <button type="button" class="btn ml-auto" disabled={step.isFetching} onclick={() => void step.refetch()}>Compare again</button>
        </header>
        <div class="scroll px-7 py-4 text-[13px]">
            {#each step.data ?? [] as one (`${one.kind}:${one.number}`)}
                <div class="grid grid-cols-[96px_1fr_auto] items-start gap-3 border-b border-ruled py-3">
                    <span class="figures text-ink-2">{one.number}</span>
                    <span>
                        {#if one.recordId}<a class="link font-semibold" href="/records/{one.recordType}/{one.recordId}">{one.title}</a>
                        {:else}<b class="font-semibold">{one.title}</b>{/if}
                        <Stamp tone={one.kind === 'differs' ? 'marigold' : 'madder'}>{LABELS[one.kind]}</Stamp>
                        {#each one.fields as field (field.label)}
                            <span class="block text-ink-2"
                                >{field.label}: <b class="font-medium">{field.ours || say('empty')}</b> here,
                                <b class="font-medium">{field.theirs || say('empty')}</b> there</span
                            >
                        {/each}
                        {#if one.kind === 'missing_here'}<span class="block text-ink-3"
                                >No customer of ours has this number. Give it to one, or take the customer out there.</span
                            >{/if}
                    </span>
                    <span class="flex gap-2">
                        {#if one.kind === 'differs'}
                            {@render way(one, 'ours', 'Use ours')}
                            {@render way(one, 'theirs', 'Use theirs')}
                        {:else if one.kind === 'missing_there'}
                            {@render way(one, 'forget', 'Forget the number')}
                        {/if}
                    </span>
                </div>
            {/each}
        </div>
    </section>
</div>
