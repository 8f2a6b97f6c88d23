<script lang="ts">
    import { createQuery } from '@tanstack/svelte-query';
    import { api, ask, said } from '../api/client';
    import VerdictCard from './VerdictCard.svelte';

    /* What every rule then in force made of one save. */
    let { entry }: { entry: number } = $props();
    const answers = createQuery(() => ({
        queryKey: ['answers', entry],
        staleTime: Infinity,
        queryFn: () => ask(api.GET('/api/ledger/{number}/answers', { params: { path: { number: entry } } })),
    }));
    let open = $state<number | null>(null);
</script>

<div class="my-1 rounded-md border border-ruled bg-raised" data-answers={entry}>
    {#if answers.isPending}
        <p class="mini px-3 py-2">Asking the rules…</p>
    {:else if answers.isError}
        <p class="note-wrong px-3 py-2">{said(answers.error)}</p>
    {:else}
        {#each answers.data as answer (answer.rule)}
            <div class="border-b border-ruled px-3 py-1.5 last:border-0">
                <button
                    type="button"
                    class="w-full text-left text-[12.5px]"
                    aria-expanded={open === answer.rule}
                    onclick={() => (open = open === answer.rule ? null : answer.rule)}
                >
                    <span class="font-semibold">{answer.name}</span>
                    {#if answer.firedIn}
                        <span class="font-semibold text-fern">fired</span> <span class="figures mini">No. {answer.firedIn}</span>
                    {:else}
                        <span class="text-ink-2">{answer.verdict.sentence}</span>
                    {/if}
                </button>
                {#if open === answer.rule}<div class="pt-1 pb-1"><VerdictCard verdict={answer.verdict} /></div>{/if}
            </div>
        {:else}
            <p class="mini px-3 py-2">No rule was in force for these records then.</p>
        {/each}
    {/if}
</div>
