<script lang="ts">
    import { Checkbox } from 'flowbite-svelte';
    import { createQuery, useQueryClient } from '@tanstack/svelte-query';
    import { api, ask, said, type Resources } from '../../api/client';
    import DifferenceLines from '../../parts/DifferenceLines.svelte';
    import type { Document } from '../../state/document.svelte';
    import { moment } from '../../state/moments';
    import { toasts } from '../../state/toasts.svelte';
    import { say } from '../../state/words';

    let { rule, page, may }: { rule: Resources['RuleResource']; page: Document; may: boolean } = $props();
    const queries = useQueryClient();
    const kept = createQuery(() => ({
        queryKey: ['proofs', rule.id],
        queryFn: () => ask(api.GET('/api/rules/{id}/proofs', { params: { path: { id: rule.id } } })),
    }));
    let open = $state<Record<number, boolean>>({});
    let proposed = $state.raw<Resources['ProposedProof'][] | null>(null);
    let ticked = $state<Record<string, boolean>>({});
    let busy = $state(false);

    const tried = $derived(page.tried);
    const others = $derived(tried.filter((one) => one.rule !== rule.id));
    const now = (proof: Resources['ProofResource']) => tried.find((one) => one.id === proof.id) ?? proof;

    async function accept(id: number) {
        const body = { file: page.file, rule: rule.id };
        if (await act(() => ask(api.POST('/api/proofs/{id}/accept', { params: { path: { id } }, body }))))
            toasts.tell('What it comes to now is what is expected from now on.');
    }

    async function drop(id: number) {
        if (await act(() => ask(api.DELETE('/api/proofs/{id}', { params: { path: { id } } })))) toasts.tell('The proof is gone.');
    }

    /** Whether it went well; if not, it has said why. */
    async function act(call: () => Promise<unknown>): Promise<boolean> {
        try {
            await call();
            await queries.invalidateQueries({ queryKey: ['proofs'] });
            page.tried = await ask(
                api.POST('/api/rules/{id}/proofs/try', { params: { path: { id: rule.id } }, body: { file: page.file } }),
            );
            return true;
        } catch (thrown) {
            toasts.complain(said(thrown));
            return false;
        }
    }

    async function propose() {
        busy = true;
        try {
            proposed = await ask(
                api.POST('/api/rules/{id}/proofs/propose', { params: { path: { id: rule.id } }, body: { file: page.file } }),
            );
            ticked = Object.fromEntries(proposed.map((one) => [one.name, true]));
        } catch (thrown) {
            toasts.complain(said(thrown));
        }
        busy = false;
    }

    async function keepProposed() {
        busy = true;
        for (const one of proposed ?? []) {
            if (!ticked[one.name]) continue;
            const body = { name: one.name, file: page.file, ...one.script } as never;
            if (await act(() => ask(api.POST('/api/rules/{id}/proofs', { params: { path: { id: rule.id } }, body }))))
                proposed = proposed?.filter((left) => left !== one) ?? null;
        }
        if (!proposed?.some((left) => ticked[left.name])) proposed = null;
        busy = false;
    }
</script>

<div class="p-6" data-proofs>
    {#each kept.data ?? [] as proof (proof.id)}
        {@const as = now(proof)}
        <div class="border-b border-ruled py-2.5" data-proof={proof.name} data-holds={as.holds}>
            <div class="flex items-baseline gap-2">
                <span class="font-semibold {as.holds ? 'text-fern' : 'text-madder'}">{as.holds ? '✓' : '✗'}</span>
                <button
                    type="button"
                    class="min-w-0 flex-1 text-left text-[13.5px] hover:text-iris"
                    aria-expanded={open[proof.id] ?? !as.holds}
                    onclick={() => (open[proof.id] = !(open[proof.id] ?? !as.holds))}>{proof.name}</button
                >
                {#if may}<button type="button" class="link text-[12.5px]" onclick={() => drop(proof.id)}>Drop</button>{/if}
            </div>
            {#if open[proof.id] ?? !as.holds}
                <DifferenceLines lines={as.lines} label="What is expected, and what comes" />
                <p class="mini mt-1.5">
                    Kept by {proof.keptBy}, {moment(proof.keptAt)}{proof.acceptedBy
                        ? ` · accepted by ${proof.acceptedBy}, ${moment(proof.acceptedAt ?? '')}`
                        : ''}
                </p>
            {/if}
            {#if !as.holds && may}
                <p class="mt-1.5 text-[12.5px] text-ink-2">
                    Mend the rule, or, if this is how it should be,
                    <button type="button" class="link" onclick={() => accept(proof.id)}>accept what comes now</button>
                </p>
            {/if}
        </div>
    {:else}
        {#if kept.data && !proposed}
            <div class="empty">
                <h2>No proofs yet.</h2>
                <p>Keep a rehearsal as a proof, and it is played again at every edit. Or start with the cases at the rule’s boundaries.</p>
            </div>
        {/if}
    {/each}
    {#if others.length}
        <h2 class="mt-5 mb-1">Proofs of other rules that this draft breaks</h2>
        {#each others as one (one.id)}
            <div class="border-b border-ruled py-2.5" data-proof={one.name} data-holds="false">
                <span class="font-semibold text-madder">✗</span>
                <a class="link" href="/rules/{one.rule}">{one.ruleName}</a>: {one.name}
                <DifferenceLines lines={one.lines} label="What is expected, and what would come" />
            </div>
        {/each}
    {/if}
    {#if may}
        {#if proposed}
            <h2 class="mt-5 mb-1">At the boundaries</h2>
            {#each proposed as one (one.name)}
                <label class="flex items-baseline gap-2 border-b border-ruled py-1.5 text-[13px]">
                    <Checkbox bind:checked={ticked[one.name]} />
                    <span class="flex-1">{one.name}</span>
                    <span class="mini">{one.fires ? say('fires') : 'does not fire'}</span>
                </label>
            {/each}
            <div class="mt-3 flex gap-2">
                <button type="button" class="btn go" disabled={busy} onclick={keepProposed}>Keep these</button>
                <button type="button" class="btn" onclick={() => (proposed = null)}>Not now</button>
            </div>
        {:else}
            <button type="button" class="btn mt-4" disabled={busy || page.reading.problems.length > 0} onclick={propose}
                >Propose proofs at the boundaries</button
            >
        {/if}
    {/if}
</div>
